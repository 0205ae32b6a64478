import {
  periodCourse,
  periodOfCourse,
  resolveWindow,
  type Bucket,
  type TrendAnswer,
  type TrendAsk,
} from '@vivid-beacon/core';
import { courseOf, quotient } from '@vivid-beacon/core/src/aggregation';
import { readingOf } from '../metrics/metrics';
import { loadMeasure, unitOf, type LoadedMeasure } from './measure';
import { answerQuery } from './query';
import { queryOfOne } from './queryOfOne';
import { derivedWayOf } from './derived';
import { samplesOf } from './planner';
import type { ReadContext } from './readContext';

/**
 * The course of a measure over a window: a query about a group of one with one value a period, or, where it has samples of
 * its own, those thinned to what a plot of `columns` pixels can show.
 */
export async function readTrend(context: ReadContext, ask: TrendAsk): Promise<TrendAnswer> {
  const loaded = await loadMeasure(context, ask.measure);
  const { numerator, denominator } = loaded;
  const ofTotals = numerator.origin === 'derived' && (await derivedWayOf(context, numerator)) === 'totals';
  const ownSamples = denominator === null && !ofTotals && numerator.origin !== 'reference' && !ask.hours;
  const bucket = ask.bucket ?? periodOfCourse(numerator.origin, ownSamples);
  return bucket === null ? readSamples(context, loaded, ask) : readPeriods(context, loaded, ask, bucket);
}

async function readSamples(context: ReadContext, loaded: LoadedMeasure, ask: TrendAsk): Promise<TrendAnswer> {
  const { now } = context;
  const { zone, calendar, numerator, divisor } = loaded;
  const window = resolveWindow(ask.window, now, zone, calendar);
  const spans = { start: [window.start], end: [window.end], into: [0] };
  const series = (await samplesOf(context, [numerator], spans)).get(numerator.id)!;
  const { v, ...course } = courseOf(series, readingOf(numerator), window, ask.columns, now);
  const shown = divisor ? v.map((each) => quotient(each, divisor.total)) : v;
  return {
    window,
    zone,
    unit: unitOf(loaded),
    now,
    bucket: null,
    until: null,
    ...course,
    v: shown,
    ...lacking(loaded),
  };
}

async function readPeriods(
  context: ReadContext,
  loaded: LoadedMeasure,
  { measure, window: spec, hours }: TrendAsk,
  bucket: Bucket,
): Promise<TrendAnswer> {
  const { now } = context;
  const asked = { window: spec, bucket, hours, compare: 'none' as const, provenance: false };
  const answer = await answerQuery(context, { ...queryOfOne(measure), ...asked });
  const { window, zone, start, end, groups } = answer;
  // Of what is known beforehand the periods that have not begun are shown too.
  const ahead = loaded.numerator.origin === 'reference';
  const course = periodCourse({ start, end }, groups[0].measures[0], bucket, now, ahead);
  return { window, zone, unit: unitOf(loaded), now, ...course, ...lacking(loaded) };
}

/** Whether the asset has nothing it could be divided by, so that no line is taken for one without data. */
const lacking = ({ divisor }: LoadedMeasure): Pick<TrendAnswer, 'lacksAttribute'> =>
  divisor?.total === null ? { lacksAttribute: true } : {};
