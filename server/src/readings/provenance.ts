import {
  isUsable,
  SUMMARY_WORDS,
  unitOfSummary,
  type Interval,
  type ProvenancePart,
  type Series,
  type Summary,
} from '@vivid-beacon/core';
import type { Summarised } from '@vivid-beacon/core/src/aggregation';
import type { Queryable } from '../db/database';
import type { MetricRow } from '../metrics/sql';
import type { MetricAnswer } from './metricReads';
import type { ReadContext } from './readContext';
import { sourcesOf } from './sources';

/**
 * One metric as a number used it: its own value, and where its samples came from.
 *
 * @param counted the part of it that counts in a ratio; null = all of it.
 */
export async function provenancePart(
  db: Queryable,
  row: MetricRow,
  summary: Summary,
  { values: [own], basis }: MetricAnswer,
  counted: Summarised | null,
  window: Interval,
): Promise<ProvenancePart> {
  return {
    metricId: row.id,
    metricName: row.name,
    assetName: row.assetName,
    summary: SUMMARY_WORDS[summary],
    unit: unitOfSummary(summary, row.unit),
    samples: (counted ?? own).samples,
    coverage: own.coverage,
    value: (counted ?? own).value,
    basis,
    sources: await sourcesOf(db, row.id, window),
  };
}

/** Time of the newest sample that counted; of several metrics of the one that is furthest behind. Null without data. */
export async function newestOfAll(
  { db, now, reads }: ReadContext,
  rows: readonly MetricRow[],
  window: Interval,
): Promise<number | null> {
  const end = Math.min(window.end, now + 1);
  const sampled = rows.filter(({ origin }) => origin === 'samples');
  const later = sampled.filter((row) => !isNewestBefore(row, end)).map(({ id }) => id);
  const series = later.length > 0 ? await reads.around(db, later, end - 1, end) : new Map<string, Series>();
  let newest = Infinity;
  for (const row of sampled) {
    const t = isNewestBefore(row, end) ? row.lastT : series.get(row.id)!.t.findLast((each) => each < end);
    if (t == null) return null;
    newest = Math.min(newest, t);
  }
  return newest === Infinity ? null : newest;
}

/** Is the newest sample that is kept with a metric usable and before `end`? */
function isNewestBefore({ lastT, lastQ }: MetricRow, end: number): boolean {
  return lastT !== null && lastT < end && isUsable(lastQ);
}
