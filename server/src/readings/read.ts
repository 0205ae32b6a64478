import {
  checkBand,
  coveredValue,
  levelOf,
  MINIMUM_COVERAGE,
  previousWindow,
  resolveWindow,
  sameWindowLastYear,
  type HoursFilter,
  type Interval,
  type Measure,
  type Reading,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import { bucketSpans, formulaWords, togetherAs } from '@vivid-beacon/core/src/engine';
import type { Queryable } from '../db/database';
import { loadMeasure, readMeasure, unitOf, type LoadedMeasure } from './measure';
import type { PlanContext } from './planner';
import { newestOfAll, provenancePart } from './provenance';

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
    previous: previous && coveredValue(previous),
    asOf: await newestOfAll(db, loaded.lower ? [loaded.upper, loaded.lower] : [loaded.upper], window, now),
    now,
    provenance: {
      formula: formulaOf(loaded),
      window,
      zone,
      minimumCoverage: MINIMUM_COVERAGE,
      parts: await Promise.all([
        provenancePart(db, loaded.upper, ask.measure.summary, answer.upper, window),
        ...(loaded.lower && answer.lower
          ? [provenancePart(db, loaded.lower, ask.measure.per!.summary, answer.lower, window)]
          : []),
      ]),
    },
  };
}

function formulaOf({ measure, upper, lower }: LoadedMeasure): string {
  return formulaWords(
    togetherAs(measure.summary, [upper]),
    lower && togetherAs(measure.per!.summary, [lower]),
    measure.per?.factor ?? 1,
  );
}
