import { BeaconError, sortSamples, type Series } from '@vivid-beacon/core';
import { evaluateAlarms } from '../alarms/evaluate';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { mergeIntoStore } from '../samples/store';
import { addIntakeMetric, closeIntake, countBatches, dropBatches, readBatch, type IntakeRow } from './sql';

/**
 * Brings all of a file into the store, in the caller's transaction: all of it or nothing.
 *
 * @param batches how many batches were sent; if one is missing nothing is done.
 */
export async function finishIntake(
  db: Queryable,
  intake: IntakeRow,
  told: { batches: number; rows: number; refused: number },
  now: number,
): Promise<void> {
  const arrived = await countBatches(db, intake.id);
  if (arrived !== told.batches) {
    throw new BeaconError(
      'WRONG_STATE',
      `Of ${told.batches} parts of the file ${arrived} have arrived. Nothing was taken; send the missing ones or start again.`,
    );
  }
  const incoming = await collect(db, intake.id, told.batches);
  const results = incoming.size > 0 ? await mergeIntoStore(db, incoming, `intake ${intake.id}`, now) : [];
  for (const result of results) {
    const { t } = incoming.get(result.metricId)!;
    if (t.length === 0) continue;
    await addIntakeMetric(db, {
      intakeId: intake.id,
      metricId: result.metricId,
      firstT: t[0],
      lastT: t[t.length - 1],
      samples: t.length,
      added: result.added,
      unchanged: result.unchanged,
      corrected: result.corrected,
    });
  }
  await evaluateAlarms(db, results, incoming);
  await dropBatches(db, intake.id);
  await closeIntake(db, intake.id, 'done', now, told.rows, told.refused);
  const changed = results.filter(({ changedFrom }) => changedFrom !== null).map(({ metricId }) => metricId);
  if (changed.length > 0) await notify(db, 'samples', changed);
  await notify(db, 'metrics', []);
}

/** All samples of a file by metric; of several at one time the last in the file holds. */
async function collect(db: Queryable, intakeId: string, batches: number): Promise<Map<string, Series>> {
  const columns = new Map<string, { t: number[]; v: number[] }>();
  for (let seq = 0; seq < batches; seq++) {
    for (const part of await readBatch(db, intakeId, seq)) {
      const column = columns.get(part.metricId) ?? { t: [], v: [] };
      columns.set(part.metricId, column);
      for (let i = 0; i < part.t.length; i++) {
        column.t.push(part.t[i]);
        column.v.push(part.v[i]);
      }
    }
  }
  return new Map([...columns].map(([id, { t, v }]) => [id, sortSamples(t, v)]));
}
