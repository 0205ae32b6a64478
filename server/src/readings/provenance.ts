import {
  SUMMARY_WORDS,
  unitOfSummary,
  type Interval,
  type ProvenancePart,
  type Summary,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import type { MetricRow } from '../metrics/sql';
import { newestBefore } from '../samples/newestBefore';
import type { MetricAnswer } from './planner';
import { sourcesOf } from './sources';

/** One metric as a number used it: its own value, and where its samples came from. */
export async function provenancePart(
  db: Queryable,
  row: MetricRow,
  summary: Summary,
  { values: [own], basis }: MetricAnswer,
  window: Interval,
): Promise<ProvenancePart> {
  return {
    metricId: row.id,
    metricName: row.name,
    assetName: row.assetName,
    summary: SUMMARY_WORDS[summary],
    unit: unitOfSummary(summary, row.unit),
    samples: own.samples,
    coverage: own.coverage,
    value: own.value,
    basis,
    sources: await sourcesOf(db, row.id, window),
  };
}

/** Time of the newest sample that counted; of several metrics of the one that is furthest behind. Null without data. */
export async function newestOfAll(
  db: Queryable,
  rows: readonly MetricRow[],
  window: Interval,
  now: number,
): Promise<number | null> {
  const sampled = rows.filter(({ origin }) => origin === 'samples');
  const end = Math.min(window.end, now + 1);
  const newest = await Promise.all(sampled.map((row) => newestBefore(db, row, end)));
  if (newest.length === 0 || newest.includes(null)) return null;
  return Math.min(...(newest as number[]));
}
