import * as yup from 'yup';
import { noticeSchema } from '../notices/notice';
import { noticeWishSchema } from '../schemas/notices';
import { list, shape, text, truth, type TypeOf } from '../schemas/shape';
import { contracts, json, nothing } from './contract';

/** Number of notices in the outbox. */
export const MAX_NOTICES = 200;

const outbox = shape({
  notices: list(noticeSchema),
  /** Stand-ins in use: nothing is sent outside then. */
  standIns: shape({ email: truth(), text: truth() }),
});
export type Outbox = TypeOf<typeof outbox>;

const ownWish = noticeWishSchema.shape({ email: text() }).required();
/** Notice settings of a person, and their e-mail address. */
export type OwnNoticeWish = TypeOf<typeof ownWish>;

export const noticesApi = contracts({
  'GET /api/notices': {
    access: 'viewer',
    summary: `The outbox: the newest ${MAX_NOTICES} notices to the caller; analysts may request those of everybody (?of=all).`,
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
    summary: 'How the caller receives notices.',
    answer: json(ownWish),
  },
  'PUT /api/notice-wish': {
    access: 'viewer',
    summary: 'Sets how the caller receives notices; in quiet hours only high-priority ones come.',
    body: noticeWishSchema,
    answer: nothing,
  },
});
