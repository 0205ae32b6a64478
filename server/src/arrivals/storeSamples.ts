import { evaluateAlarms } from '../alarms/evaluate';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { countPushed } from '../samples/sql';
import { mergeIntoStore, type Incoming, type MergeResult } from '../samples/store';

/** Where samples came from. */
export interface SampleSource {
  /** Named with corrections: "push token 4". */
  readonly name: string;
  /** The token they were pushed with, whose samples are counted by day; null = none. */
  readonly tokenId: string | null;
}

/**
 * The only way samples are stored, in the caller's transaction: merged into their days with rollups and
 * newest sample, counted for their token, evaluated by alarm rules, and announced to every screen on commit.
 *
 * @param incoming per metric, increasing times. @param now ms.
 * @throws {BeaconError} WRONG_STATE when a metric was removed while its samples were on their way.
 */
export async function storeSamples(
  db: Queryable,
  incoming: Incoming,
  { name, tokenId }: SampleSource,
  now: number,
): Promise<MergeResult[]> {
  const merged = await mergeIntoStore(db, incoming, name, now);
  const pushed = merged.flatMap(({ metricId, addedByDay }) =>
    [...addedByDay].map(([dayStart, samples]) => ({ metricId, dayStart, samples })),
  );
  if (tokenId !== null && pushed.length > 0) await countPushed(db, tokenId, pushed);
  await afterMerge(db, merged, now);
  return merged;
}

/**
 * What follows every change of samples: rules are evaluated and screens notified on commit. For callers that
 * merge in portions.
 */
export async function afterMerge(db: Queryable, merged: readonly MergeResult[], now: number): Promise<void> {
  await evaluateAlarms(db, merged, now);
  const changed = merged.filter(({ changedFrom }) => changedFrom !== null).map(({ metricId }) => metricId);
  if (changed.length > 0) await notify(db, 'samples', changed);
}
