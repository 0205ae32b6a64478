import { digestNotice, FLOOD_MS, bundledByFlood } from '@vivid-beacon/core/src/alarming';
import { withTransaction, type Pool } from '../db/database';
import { notify } from '../live/notify';
import { addNotice, gatherInto, lastDigest, lockWaiting, recipientsOf, waitingFor } from './sql';

/**
 * Bundles the waiting notices of a person into one, in a flood and after quiet hours; at most one in ten
 * minutes.
 *
 * @returns how many digests were made.
 */
export async function gatherDigests(pool: Pool, now: number): Promise<number> {
  let made = 0;
  for (const { personId, channel, sentLately } of await waitingFor(pool, now, now - FLOOD_MS)) {
    made += await withTransaction(pool, async (db) => {
      const waiting = await lockWaiting(db, personId, channel, now);
      const together = new Set(bundledByFlood(waiting, sentLately).map(({ id }) => id));
      const parts = waiting.filter(({ id, kind }) => together.has(id) && kind !== 'digest');
      if (parts.length < 2) return 0;
      const [person] = await recipientsOf(db, [personId]);
      const before = await lastDigest(db, personId, channel);
      const id = await addNotice(db, {
        key: `digest of ${parts[0].id} to ${parts[parts.length - 1].id}`,
        personId,
        channel,
        kind: 'digest',
        urgent: false,
        ...digestNotice(
          parts.map(({ subject }) => subject),
          parts[0].createdAt,
          person.zone,
        ),
        address: '/alarms',
        createdAt: now,
        dueAt: before === null ? now : Math.max(now, before + FLOOD_MS),
      });
      if (id === undefined) return 0;
      await gatherInto(
        db,
        id,
        parts.map((part) => part.id),
      );
      await notify(db, 'notices', []);
      return 1;
    });
  }
  return made;
}
