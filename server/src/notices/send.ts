import { withTransaction } from '../db/database';
import type { AppContext } from '../http/appContext';
import { notify } from '../live/notify';
import { gatherDigests } from './digests';
import { lockNextDue, markFailed, markSent, type Outgoing } from './sql';

const FIRST_WAIT_MS = 15_000;
const MAX_WAIT_MS = 10 * 60_000;
const MAX_AT_ONCE = 500;

/**
 * Outgoing transports. `messageId` is the same for every attempt, so that receivers can recognise repeats.
 */
export interface Transports {
  readonly mail: (message: { to: string; subject: string; text: string; messageId: string }) => Promise<void>;
  readonly text: (message: { to: string; text: string; messageId: string }) => Promise<void>;
  /** Whether the stand-ins that ship with the product are used. */
  readonly standIns: { readonly email: boolean; readonly text: boolean };
  readonly close: () => Promise<void>;
}

/** Longer after each failure, up to ten minutes. */
export function waitAfter(attempts: number): number {
  return Math.min(FIRST_WAIT_MS * 2 ** attempts, MAX_WAIT_MS);
}

/**
 * Not a job queue: a notice waits in quiet hours and joins digests, so its own row is the queue. The row stays locked
 * until the outcome is stored; after a crash in between it is sent again with the same `messageId`.
 *
 * Sends what is due, the most urgent first. Each notice stays locked while it is sent, so that of several servers one
 * sends it; what fails is tried again later.
 *
 * @returns how many were sent.
 */
export async function sendNotices(app: AppContext, posts: Transports): Promise<number> {
  await gatherDigests(app.pool, app.now());
  let sent = 0;
  for (let i = 0; i < MAX_AT_ONCE; i++) {
    const outcome = await sendNext(app, posts);
    if (outcome === 'nothing') break;
    if (outcome === 'sent') sent++;
  }
  if (sent > 0) await notify(app.pool, 'notices', []);
  return sent;
}

function sendNext(app: AppContext, posts: Transports): Promise<'sent' | 'failed' | 'nothing'> {
  return withTransaction(app.pool, async (db) => {
    const now = app.now();
    const notice = await lockNextDue(db, now);
    if (!notice) return 'nothing';
    try {
      const to = await sendOne(notice, posts, app.publicUrl());
      await markSent(db, notice.noticeId, now, to);
      return 'sent';
    } catch (error) {
      // What the server said, without the address it was about.
      const { code } = error as { code?: string };
      await markFailed(
        db,
        notice.noticeId,
        code ?? (error as Error).message,
        now + waitAfter(notice.attempts),
      );
      app.log.warn(
        { code, notice: notice.noticeId, attempts: notice.attempts + 1 },
        'a notice could not be sent',
      );
      return 'failed';
    }
  });
}

async function sendOne(notice: Outgoing, posts: Transports, url: string): Promise<string> {
  const messageId = `notice-${notice.noticeId}`;
  const link = `${url}${notice.address}`;
  if (notice.channel === 'email') {
    const text = `${notice.body}\n\n${link}\n`;
    await posts.mail({ to: notice.email, subject: notice.subject, text, messageId });
    return notice.email;
  }
  if (!notice.phone) throw new Error('There is no number for text messages.');
  await posts.text({ to: notice.phone, text: `${notice.subject}. ${notice.body} ${link}`, messageId });
  return notice.phone;
}
