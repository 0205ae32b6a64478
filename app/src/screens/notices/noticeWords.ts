import { formatMoment, NOTICE_KIND_WORDS, type Notice } from '@vivid-beacon/core';

const CHANNEL = { email: 'e-mail', text: 'text message' } as const;

/** How far a notice has come, in words. */
export function noticeState(notice: Notice, zone: string, now: number): string {
  const at = (t: number): string => formatMoment(t, zone, now);
  if (notice.digestId !== null) return 'bundled into a digest';
  if (notice.sentAt !== null) return `sent ${at(notice.sentAt)}`;
  if (notice.attempts > 0) {
    const times = notice.attempts === 1 ? 'once' : `${notice.attempts} times`;
    return `tried ${times} (${notice.lastError ?? 'no answer'}), again ${at(notice.dueAt)}`;
  }
  return notice.dueAt > now ? `waits until ${at(notice.dueAt)}` : 'on its way';
}

/** The second line of a notice in the outbox. */
export function noticeLine(notice: Notice, zone: string, now: number): string {
  return [
    NOTICE_KIND_WORDS[notice.kind],
    `${CHANNEL[notice.channel]} to ${notice.personName}`,
    noticeState(notice, zone, now),
  ].join(', ');
}
