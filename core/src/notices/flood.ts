import { MINUTE_MS } from '../time/lengths';

/** More notices to one person than this in ten minutes are gathered; EEMUA 191 calls so many alarms a flood (from memory). */
export const FLOOD_COUNT = 10;
export const FLOOD_MS = 10 * MINUTE_MS;
/** With this many waiting for the end of quiet hours, they are bundled. */
const HELD_COUNT = 3;

/** A notice that waits. */
export interface WaitingNotice {
  readonly id: string;
  readonly urgent: boolean;
  /** Whether it waited for the end of quiet hours. */
  readonly held: boolean;
}

/**
 * Which of the notices that wait for one person on one channel go into a digest: in a flood all that are not
 * urgent, else those of the quiet hours if there are several.
 *
 * @param sentLately how many the person was sent in the last {@link FLOOD_MS}.
 */
export function bundledByFlood(waiting: readonly WaitingNotice[], sentLately: number): WaitingNotice[] {
  const calm = waiting.filter(({ urgent }) => !urgent);
  if (waiting.length + sentLately > FLOOD_COUNT) return calm.length > 1 ? calm : [];
  const held = calm.filter((notice) => notice.held);
  return held.length >= HELD_COUNT ? held : [];
}
