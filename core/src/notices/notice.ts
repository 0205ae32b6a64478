import type { noticeWishSchema } from '../schemas/notices';
import { amount, amountOrNull, oneOf, shape, text, textOrNull, type TypeOf } from '../schemas/shape';

export const NOTICE_CHANNELS = ['email', 'text'] as const;
export type NoticeChannel = (typeof NOTICE_CHANNELS)[number];

export const NOTICE_KINDS = ['breach', 'return', 'escalation', 'digest', 'flag', 'lateFlag'] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];

export const NOTICE_KIND_WORDS: Readonly<Record<NoticeKind, string>> = {
  breach: 'Alarm',
  return: 'Back to normal',
  escalation: 'Not acknowledged',
  digest: 'Digest',
  flag: 'Flag',
  lateFlag: 'Late flag',
};

/** Notice settings of a person. */
export type NoticeWish = TypeOf<typeof noticeWishSchema>;

/** One notice as the outbox shows it. Times are ms since the Unix epoch. */
export const noticeSchema = shape({
  id: text(),
  personName: text(),
  channel: oneOf(NOTICE_CHANNELS),
  kind: oneOf(NOTICE_KINDS),
  subject: text(),
  body: text(),
  /** Path within the app that it leads to. */
  address: text(),
  createdAt: amount(),
  dueAt: amount(),
  sentAt: amountOrNull(),
  sentTo: textOrNull(),
  attempts: amount(),
  lastError: textOrNull(),
  /** The digest it is bundled in; null = none. */
  digestId: textOrNull(),
  /** When a stand-in received it; null = it has not, or a real server was used. */
  caughtAt: amountOrNull(),
});
export type Notice = TypeOf<typeof noticeSchema>;
