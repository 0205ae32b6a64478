import { formatMoment, type Account } from '@vivid-beacon/core';
import { deviceZone } from '../deviceZone';

/** Whether an account is used, in words: "disabled", "invited until 4 Dec, 14:00", "last here today, 09:12". */
export function accountStateWords({ state, seenAt, invitedUntil }: Account, now: number): string {
  const zone = deviceZone();
  if (state === 'disabled') return 'disabled';
  if (state === 'invited') {
    return invitedUntil === null
      ? 'invited, the link has ended'
      : `invited until ${formatMoment(invitedUntil, zone, now)}`;
  }
  return seenAt === null ? 'not signed in' : `last here ${formatMoment(seenAt, zone, now)}`;
}
