import {
  periodOfWindow,
  addsUp,
  DAY_MS,
  isHeld,
  levelOf,
  coveredValue,
  resolveWindow,
  SEVERITY,
  timeByLevel,
  versionAt,
  searchWords,
  type indicatorListSchema,
  type IndicatorDefinition,
  type IndicatorLoss,
  type IndicatorReading,
  type IndicatorVersion,
  type Bucket,
  type Interval,
  type Level,
  type PageOf,
  type PastBucket,
  type LevelSpan,
  type PeriodTarget,
  type Reading,
  type JudgedPeriod,
  type TargetBand,
  type TypeOf,
} from '@vivid-beacon/core';
import {
  bandOfJudge,
  bucketSpans,
  clippedSteps,
  levelsOfSteps,
  type BucketSpans,
} from '@vivid-beacon/core/src/aggregation';
import { readSteps } from '../readings/levels';
import { loadMeasure, readMeasure, type LoadedMeasure } from '../readings/measure';
import { readValue } from '../readings/read';
import type { ReadContext } from '../readings/readContext';
import { listIndicators, pageOfIndicators, targetsOf, versionsOf, type IndicatorRow } from './sql';
import { readBaseline } from './baseline';
import { targetsOfBuckets, upTo } from './targets';

/** Indicators of a list with their present value, target and level, in the order of the list. */
export async function readIndicatorRows(
  context: ReadContext,
  rows: readonly IndicatorRow[],
): Promise<IndicatorReading[]> {
  const targets = await targetsOf(
    context.db,
    rows.map(({ id }) => id),
  );
  return Promise.all(rows.map((row) => readIndicator(context, row, targets.get(row.id)!)));
}

/** Orders indicators by their level, the worst first, then by name. */
export const worstFirst = (a: IndicatorReading, b: IndicatorReading): number =>
  SEVERITY[a.reading.level] - SEVERITY[b.reading.level] ||
  a.name.localeCompare(b.name, 'en', { numeric: true });

/** A page of indicators with their present value, target and level, the worst first. */
export async function readIndicatorPage(
  context: ReadContext,
  { ids, search, offset, limit }: TypeOf<typeof indicatorListSchema>,
): Promise<PageOf<IndicatorReading>> {
  const filter = { ids: ids?.split(','), words: searchWords(search) };
  const { items, total } = await pageOfIndicators(context.db, filter, { offset, limit });
  return { items: (await readIndicatorRows(context, items)).sort(worstFirst), total };
}

/** The level that a version of an indicator is on. */
export interface JudgedLevel {
  readonly id: string;
  readonly version: number;
  readonly level: Level;
}

/** The level each of these indicators is on now. */
export async function readIndicatorLevels(
  context: ReadContext,
  { ids }: { readonly ids: readonly string[] },
): Promise<JudgedLevel[]> {
  const { items } = await pageOfIndicators(context.db, { ids }, { offset: 0, limit: ids.length });
  const read = await readIndicatorRows(context, items);
  return read.map(({ id, version, reading }) => ({ id, version, level: reading.level }));
}

/** One indicator with its present value. */
export async function readIndicator(
  context: ReadContext,
  { id, version, definition, assetName, place, plantId, ownerName }: IndicatorRow,
  targets: readonly PeriodTarget[],
): Promise<IndicatorReading> {
  return {
    id,
    version,
    definition,
    name: definition.name,
    assetName,
    place,
    plantId,
    ownerName,
    measure: definition.measure,
    window: definition.window,
    decimals: definition.decimals,
    ...(await readDefinition(context, definition, targets)),
  };
}

/** The present value of a definition, judged by its target and compared with its reference. */
export async function readDefinition(
  context: ReadContext,
  definition: IndicatorDefinition,
  targets: readonly PeriodTarget[],
): Promise<Pick<IndicatorReading, 'target' | 'band' | 'reading'>> {
  const { measure, window: span, hours, reference } = definition;
  const loaded = await loadMeasure(context, measure);
  const window = resolveWindow(span, context.now, loaded.zone, loaded.calendar);
  const whole = bucketSpans(window, null, hours, loaded.zone, loaded.calendar);
  const [target] = await targetsOfBuckets(context, definition, targets, loaded, whole);
  const band = bandOfJudge(definition.judge, target);
  const compare = reference.kind === 'lastYear' ? 'lastYear' : 'before';
  const read = await readValue(context, { measure, window: span, band, hours, compare });
  const previous = await referenceOf(context, definition, loaded, read, whole);
  // A value that cannot be judged has no level, however well it is known.
  const level = band === null ? 'nodata' : read.level;
  return { target: target ?? band?.target ?? null, band, reading: { ...read, previous, level } };
}

async function referenceOf(
  context: ReadContext,
  { reference, hours }: IndicatorDefinition,
  loaded: LoadedMeasure,
  read: Reading,
  buckets: Parameters<typeof readMeasure>[2],
): Promise<number | null> {
  switch (reference.kind) {
    case 'none':
      return null;
    case 'fixed':
      return reference.value;
    case 'before':
    case 'lastYear':
      return read.previous;
    case 'baseline':
      return readBaseline(context, loaded, hours, upTo(buckets.window, context.now), reference.weeks);
    case 'measure': {
      const other = await loadMeasure(context, reference.measure);
      const [{ value, coverage }] = (await readMeasure(context, other, buckets)).values;
      return coveredValue({ value, coverage });
    }
  }
}

/** The past of an indicator by period. */
export async function judgePast(
  context: ReadContext,
  versions: readonly IndicatorVersion[],
  targets: readonly PeriodTarget[],
  interval: Interval,
  bucket: Bucket,
): Promise<JudgedPeriod[]> {
  const judged: JudgedPeriod[] = [];
  for (const { version, loaded, buckets, periods } of await versionsInForce(
    context,
    versions,
    targets,
    interval,
    bucket,
  )) {
    const { values } = await readMeasure(context, loaded, buckets);
    for (const { i, band, target } of periods) {
      if (buckets.start[i] >= context.now) continue;
      const { value, coverage } = values[i];
      const level = band === null ? 'nodata' : levelOf(band, value, coverage);
      judged.push({ start: buckets.start[i], end: buckets.end[i], value, coverage, target, level, version });
    }
  }
  return judged.sort((a, b) => a.start - b.start);
}

/** A definition with the periods it is in force in, and what each is judged by. */
interface InForce {
  readonly version: number;
  readonly definition: IndicatorDefinition;
  readonly loaded: LoadedMeasure;
  readonly buckets: BucketSpans;
  readonly periods: readonly {
    readonly i: number;
    readonly band: TargetBand | null;
    readonly target: number | null;
  }[];
}

/** Each definition reads only the periods that it judges. */
async function versionsInForce(
  context: ReadContext,
  versions: readonly IndicatorVersion[],
  targets: readonly PeriodTarget[],
  interval: Interval,
  bucket: Bucket,
): Promise<InForce[]> {
  const newest = versions.reduce((a, b) => (b.version > a.version ? b : a));
  const { zone, calendar } = await loadMeasure(context, newest.definition.measure);
  const all = bucketSpans(interval, bucket, null, zone, calendar);
  const found: InForce[] = [];
  for (const { version, definition } of versions) {
    const mine = all.start.flatMap((start, i) => (versionAt(versions, start).version === version ? [i] : []));
    if (mine.length === 0) continue;
    const loaded = await loadMeasure(context, definition.measure);
    const from = all.start[mine[0]];
    const to = all.end[mine[mine.length - 1]];
    const buckets = bucketSpans({ start: from, end: to }, bucket, definition.hours, zone, calendar);
    const goals = await targetsOfBuckets(context, definition, targets, loaded, buckets);
    const periods = buckets.start.map((_, i) => {
      const band = bandOfJudge(definition.judge, goals[i]);
      return { i, band, target: goals[i] ?? band?.target ?? null };
    });
    found.push({ version, definition, loaded, buckets, periods });
  }
  return found;
}

/** The levels of an indicator over an interval, and what was judged. */
async function levelsOverTime(
  context: ReadContext,
  versions: readonly IndicatorVersion[],
  targets: readonly PeriodTarget[],
  interval: Interval,
  whole: PastBucket | null,
): Promise<{ spans: LevelSpan[]; by: Bucket | null }> {
  const spans: LevelSpan[] = [];
  let by: Bucket | null = null;
  const inForce = await versionsInForce(context, versions, targets, interval, whole ?? 'hour');
  for (const { definition, loaded, buckets, periods } of inForce) {
    const { measure, hours } = definition;
    const stretch = { start: buckets.start[0], end: buckets.end[buckets.size - 1] };
    const period = isHeld(measure) ? null : (whole ?? 'hour');
    const course = await readSteps(context, loaded, stretch, hours, period);
    by = course.by;
    for (const { i, band } of periods) {
      const inside = {
        start: Math.max(buckets.start[i], interval.start),
        end: Math.min(buckets.end[i], interval.end),
      };
      if (inside.end > inside.start) spans.push(...levelsOfSteps(band, clippedSteps(course.steps, inside)));
    }
  }
  return { spans, by };
}

/**
 * How long each indicator lay on which level over the last days, those longest in breach first: from its held
 * samples, a ratio by the hour, and one that adds up by periods as long as its window, because an hour of a total
 * says nothing of the whole.
 */
export async function readIndicatorLosses(
  context: ReadContext,
  { days }: { readonly days: number },
): Promise<IndicatorLoss[]> {
  const { db, now } = context;
  const interval = { start: now - days * DAY_MS, end: now };
  const rows = await listIndicators(db);
  const ids = rows.map(({ id }) => id);
  const [versions, targets] = [await versionsOf(db, ids), await targetsOf(db, ids)];
  const losses = await Promise.all(
    rows.map(async ({ id, definition, assetName, place, plantId }) => {
      const whole = addsUp(definition.measure);
      const period = whole ? periodOfWindow(definition.window, now, 'UTC') : null;
      const { spans, by } = await levelsOverTime(
        context,
        versions.get(id)!,
        targets.get(id)!,
        interval,
        period,
      );
      const time = timeByLevel(spans);
      return {
        id,
        name: definition.name,
        assetId: definition.assetId,
        assetName,
        place,
        metricId: definition.measure.metricId,
        window: interval,
        plantId,
        breachMs: time.breach,
        cautionMs: time.caution,
        nodataMs: time.nodata,
        clearMs: time.clear,
        by,
      };
    }),
  );
  return losses.sort((a, b) => b.breachMs - a.breachMs || b.cautionMs - a.cautionMs);
}
