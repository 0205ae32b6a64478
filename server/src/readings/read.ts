import {
  checkBand,
  levelOf,
  MINIMUM_COVERAGE,
  previousWindow,
  resolveWindow,
  sameWindowLastYear,
  SUMMARY_WORDS,
  unitOfSummary,
  type HoursFilter,
  type Interval,
  type Measure,
  type ProvenancePart,
  type Reading,
  type Summary,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import { bucketSpans, formulaWords } from '@vivid-beacon/core/src/engine';
import type { Queryable } from '../db/database';
import type { MetricRow } from '../metrics/sql';
import { newestBefore } from '../samples/newestBefore';
import { loadMeasure, readMeasure, unitOf, type LoadedMeasure } from './measure';
import type { MetricAnswer, PlanContext } from './planner';
import { sourcesOf } from './sources';

export interface ReadAsk {
  readonly measure: Measure;
  readonly window: WindowSpec;
  readonly band: TargetBand | null;
  readonly hours?: HoursFilter | null;
  /** What `previous` is compared with; default the period before. */
  readonly compare?: 'before' | 'lastYear';
}

/** One value of a measure over a window, judged by a band, with how it was made. */
export async function readValue(db: Queryable, ask: ReadAsk, now: number): Promise<Reading> {
  if (ask.band) checkBand(ask.band);
  const context: PlanContext = { db, now };
  const loaded = await loadMeasure(context, ask.measure);
  const { zone, calendar } = loaded;
  const window = resolveWindow(ask.window, now, zone, calendar);
  const before =
    ask.compare === 'lastYear'
      ? sameWindowLastYear(ask.window, now, zone, calendar)
      : previousWindow(ask.window, now, zone, calendar);
  const over = (interval: Interval) => bucketSpans(interval, null, ask.hours ?? null, zone, calendar);
  const answer = await readMeasure(context, loaded, over(window));
  const { value, coverage } = answer.values[0];
  const previous =
    before.end > before.start ? (await readMeasure(context, loaded, over(before))).values[0] : null;
  return {
    value,
    unit: unitOf(loaded),
    level: ask.band ? levelOf(ask.band, value, coverage) : value === null ? 'nodata' : 'clear',
    coverage,
    partial: window.end > now,
    previous: previous && previous.coverage >= MINIMUM_COVERAGE ? previous.value : null,
    asOf: await newestIn(db, loaded, window, now),
    now,
    provenance: {
      formula: formulaOf(loaded),
      window,
      zone,
      minimumCoverage: MINIMUM_COVERAGE,
      parts: await Promise.all([
        partOf(db, loaded.upper, ask.measure.summary, answer.upper, window),
        ...(loaded.lower && answer.lower
          ? [partOf(db, loaded.lower, ask.measure.per!.summary, answer.lower, window)]
          : []),
      ]),
    },
  };
}

function formulaOf({ measure, upper, lower }: LoadedMeasure): string {
  const words = (row: MetricRow, summary: Summary) => ({
    summary,
    kind: row.kind,
    metricName: row.name,
    assetName: row.assetName,
  });
  return formulaWords(
    words(upper, measure.summary),
    lower && words(lower, measure.per!.summary),
    measure.per?.factor ?? 1,
  );
}

async function partOf(
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

/** Time of the newest sample that counted; of a ratio, of the part that is older. */
async function newestIn(
  db: Queryable,
  { upper, lower }: LoadedMeasure,
  window: Interval,
  now: number,
): Promise<number | null> {
  const rows = [upper, ...(lower ? [lower] : [])].filter(({ origin }) => origin === 'samples');
  const end = Math.min(window.end, now + 1);
  const newest = await Promise.all(rows.map((row) => newestBefore(db, row, end)));
  if (newest.length === 0 || newest.includes(null)) return null;
  return Math.min(...(newest as number[]));
}
