import { formatMoment, type Flag } from '@vivid-beacon/core';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { lockLateFlags } from './sql';
import { recipientsOf } from '../notices/sql';
import { enqueueNotice } from '../notices/enqueueNotice';

/** Enqueues a notice to the taker of a flag, unless they handed it to themselves. */
export async function enqueueFlagNotices(
  db: Queryable,
  flag: Flag,
  byId: string,
  now: number,
): Promise<void> {
  if (flag.to.id === byId) return;
  const [taker] = await recipientsOf(db, [flag.to.id]);
  const lines = [`From ${flag.from.name}, due ${formatMoment(flag.dueAt, taker.zone)}.`, flag.note];
  await enqueueNotice(
    db,
    [flag.to.id],
    {
      about: `flag ${flag.id} handed at ${now}`,
      kind: 'flag',
      urgent: flag.priority === 'high',
      text: { subject: `Flag for you: ${flag.title}`, body: lines.filter(Boolean).join('\n') },
      address: `/flags/${flag.id}`,
      flagId: flag.id,
      plantId: flag.plantId,
    },
    now,
  );
}

/** Enqueues notices to taker and giver of overdue flags, once per due time. @returns how many. */
export async function enqueueLateFlagNotices(pool: Pool, now: number): Promise<number> {
  return withTransaction(pool, async (db) => {
    const late = await lockLateFlags(db, now);
    for (const flag of late) {
      await enqueueNotice(
        db,
        [...new Set([flag.to.id, flag.from.id])],
        {
          about: `flag ${flag.id} late since ${flag.dueAt}`,
          kind: 'lateFlag',
          urgent: flag.priority === 'high',
          text: {
            subject: `Late: ${flag.title}`,
            body: `Handed to ${flag.to.name} by ${flag.from.name}. It was due ${formatMoment(flag.dueAt, flag.zone)}.`,
          },
          address: `/flags/${flag.id}`,
          flagId: flag.id,
          plantId: flag.plantId,
        },
        now,
      );
    }
    return late.length;
  });
}
