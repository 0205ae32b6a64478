import * as yup from 'yup';
import { noticeSchema } from '../notices/notice';
import { noticeWishSchema } from '../schemas/notices';
import { list, shape, text, truth, type TypeOf } from '../schemas/shape';
import { contracts, json, nothing } from './contract';

/** So many notices the outbox shows. */
export const MOST_NOTICES = 200;

const outbox = shape({
  notices: list(noticeSchema),
  /** Which of the stand-ins that ship with the product are used: nothing leaves the house then. */
  standIns: shape({ email: truth(), text: truth() }),
});
export type Outbox = TypeOf<typeof outbox>;

const ownWish = noticeWishSchema.shape({ email: text() }).required();
/** How a person wants notices, and their e-mail address. */
export type OwnNoticeWish = TypeOf<typeof ownWish>;

export const noticesApi = contracts({
  'GET /api/notices': {
    access: 'viewer',
    summary: `The outbox: the newest ${MOST_NOTICES} notices to the person who asks; analysts may ask for those of everybody (?of=all).`,
    query: yup
      .object({
        of: yup
          .string()
          .oneOf(['me', 'all'] as const)
          .default('me'),
      })
      .noUnknown(),
    answer: json(outbox),
  },
  'GET /api/notice-wish': {
    access: 'viewer',
    summary: 'How the person who asks wants notices.',
    answer: json(ownWish),
  },
  'PUT /api/notice-wish': {
    access: 'viewer',
    summary: 'Sets how the person who asks wants notices; in quiet hours only high-priority ones come.',
    body: noticeWishSchema,
    answer: nothing,
  },
});
