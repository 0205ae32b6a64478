import { DAY_MS, type AlarmTest, type MetricKind } from '@vivid-beacon/core';
import { fitAlarmModel, type AlarmModel } from '@vivid-beacon/core/src/alarming';
import type { Queryable } from '../db/database';
import { spend } from '../db/readBudget';
import { readSeries } from '../samples/readSeries';

/** How far back a rule learns. */
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
  /** It learns from samples before this time, ms. */
  readonly until: number;
}

/** Learns the model of one metric; null with too few samples. */
export type Learner = (ask: ToLearn) => Promise<AlarmModel | null>;

/** Fits the model of one metric on the preceding 56 days. */
export async function learnUsual(
  db: Queryable,
  { test, metric, until }: ToLearn,
): Promise<AlarmModel | null> {
  const past = (await readSeries(db, [metric.id], until - LEARN_MS, until + 1)).get(metric.id)!;
  spend(db, past.t.length * OF_FITTING);
  return fitAlarmModel(test, past, metric, metric.zone);
}
