import {
  checkBand,
  formulaWords,
  levelOf,
  measure as measureWindow,
  MINIMUM_COVERAGE,
  previousWindow,
  resolveWindow,
  summarise,
  SUMMARY_WORDS,
  unitOfMeasure,
  unitOfSummary,
  type Interval,
  type Measure,
  type MeasuredMetric,
  type ProvenancePart,
  type Reading,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { needMetrics } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import { loadMeasure, type LoadedMeasure } from './loadMeasure';
import { sourcesOf } from './sources';

/** One value of a measure over a window, judged by a band, with how it was made. */
export async function readValue(
  db: Queryable,
  ask: { measure: Measure; window: WindowSpec; band: TargetBand | null },
  now: number,
): Promise<Reading> {
  if (ask.band) checkBand(ask.band);
  const { zone } = (await needMetrics(db, [ask.measure.metricId])).get(ask.measure.metricId)!;
  const window = resolveWindow(ask.window, now, zone);
  const before = previousWindow(ask.window, now, zone);
  const loaded = await loadMeasure(db, ask.measure, { start: before.start, end: window.end });
  const read = (over: Interval) => measureWindow(loaded.upper, loaded.lower, loaded.factor, over, now);
  const { value, coverage } = read(window);
  const previous = read(before);
  return {
    value,
    unit: unitOf(loaded, ask.measure),
    level: ask.band ? levelOf(ask.band, value, coverage) : value === null ? 'nodata' : 'clear',
    coverage,
    partial: window.end > now,
    previous: previous.coverage >= MINIMUM_COVERAGE ? previous.value : null,
    asOf: newestIn(loaded, window, now),
    now,
    provenance: {
      formula: formulaWords(
        partOf(loaded.upperRow, loaded.upper),
        loaded.lowerRow && partOf(loaded.lowerRow, loaded.lower!),
        loaded.factor,
      ),
      window,
      zone,
      minimumCoverage: MINIMUM_COVERAGE,
      parts: await provenanceParts(db, loaded, window, now),
    },
  };
}

/** Unit of a loaded measure as it is shown. */
export function unitOf(loaded: LoadedMeasure, measure: Measure): string {
  return unitOfMeasure(
    { summary: measure.summary, unit: loaded.upperRow.unit },
    loaded.lowerRow && { summary: measure.per!.summary, unit: loaded.lowerRow.unit },
    measure.per?.unit ?? null,
  );
}

function partOf(row: MetricRow, metric: MeasuredMetric) {
  return { summary: metric.summary, kind: row.kind, metricName: row.name, assetName: row.assetName };
}

async function provenanceParts(
  db: Queryable,
  loaded: LoadedMeasure,
  window: Interval,
  now: number,
): Promise<ProvenancePart[]> {
  const both: [MetricRow, MeasuredMetric][] = [[loaded.upperRow, loaded.upper]];
  if (loaded.lowerRow && loaded.lower) both.push([loaded.lowerRow, loaded.lower]);
  return Promise.all(
    both.map(async ([row, metric]) => {
      const own = summarise(metric.series, metric.summary, metric.reading, window, now);
      return {
        metricId: row.id,
        metricName: row.name,
        assetName: row.assetName,
        summary: SUMMARY_WORDS[metric.summary],
        unit: unitOfSummary(metric.summary, row.unit),
        samples: own.samples,
        coverage: own.coverage,
        value: own.value,
        sources: await sourcesOf(db, row.id, window),
      };
    }),
  );
}

/** Time of the newest sample that counted. */
function newestIn(loaded: LoadedMeasure, window: Interval, now: number): number | null {
  const end = Math.min(window.end, now + 1);
  const newest = [loaded.upper, loaded.lower]
    .filter((metric) => metric !== null)
    .map(({ series: { t } }) => t.findLast((each) => each < end) ?? -Infinity);
  const oldest = Math.min(...newest);
  return Number.isFinite(oldest) ? oldest : null;
}
