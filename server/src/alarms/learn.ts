import { DAY_MS, type AlarmTest, type MetricKind } from '@vivid-beacon/core';
import { fitAlarmModel, type AlarmModel } from '@vivid-beacon/core/src/engine';
import type { Queryable } from '../db/database';
import { spend } from '../db/readBudget';
import { readSeries } from '../samples/readSeries';

/** How far back a rule learns what is usual. */
export const LEARN_MS = 56 * DAY_MS;
/** Fitting takes about as long as reading. */
const OF_FITTING = 1;

export interface ToLearn {
  readonly test: AlarmTest;
  readonly metric: {
    readonly id: string;
    readonly kind: MetricKind;
    readonly maxGapMs: number;
    readonly zone: string;
  };
  /** It learns from what lies before, ms. */
  readonly until: number;
}

/** Learns what is usual for one metric; null when there is too little to learn from. */
export type Learner = (ask: ToLearn) => Promise<AlarmModel | null>;

/** What a rule learns about one metric from the 56 days before. */
export async function learnUsual(
  db: Queryable,
  { test, metric, until }: ToLearn,
): Promise<AlarmModel | null> {
  const past = (await readSeries(db, [metric.id], until - LEARN_MS, until + 1)).get(metric.id)!;
  spend(db, past.t.length * OF_FITTING);
  return fitAlarmModel(test, past, metric, metric.zone);
}
