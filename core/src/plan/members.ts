import type { MetricOrigin } from '../domain/metric';
import type { WorkingCalendar } from '../schemas/calendar';
import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import { ADDS_UP, type MetricKind, type Summary } from '../domain/metric';
import type { GroupBy, Query } from '../domain/query';
import { foldedBuckets } from '../time/foldedBuckets';
import { PERIOD_OF_FOLD } from '../time/folds';
import { BeaconError } from '../errors';
import { attributeOf, nameKey } from '../text/sameName';
import { topmost } from '../scope/scope';
import { checkSummary } from '../summary/checkSummary';
import { bucketSpans, type BucketSpans } from '../time/bucketSpans';
import type { Interval } from '../time/interval';

/** The fields of a metric and its asset that planning needs. */
export interface PlannedMetric {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
  readonly kind: MetricKind;
  readonly origin: MetricOrigin;
  readonly assetId: string;
  readonly assetName: string;
  readonly assetKind: string;
  /** Ids of assets from the plant down to its own. */
  readonly path: readonly string[];
  readonly plantId: string;
  readonly plantName: string;
  readonly zone: string;
}

/** Attributes by asset id, for the assets in question. */
export type AttributesById = ReadonlyMap<string, Readonly<Record<string, string | number>>>;

const OF_CALENDAR: ReadonlySet<string | null> = new Set([
  'shift',
  'week',
  'financialQuarter',
  'financialYear',
]);

/**
 * Shifts, working hours, weeks and financial years depend on the site; hours, days and months do not. A grid says which
 * of its hours are working time.
 */
export function needsCalendar({
  window,
  bucket,
  fold,
  hours,
}: Pick<Query, 'window' | 'bucket' | 'fold' | 'hours'>): boolean {
  const unit = window.kind === 'absolute' ? null : window.unit;
  return fold !== null || hours !== null || OF_CALENDAR.has(bucket) || OF_CALENDAR.has(unit);
}

/** Whether groups or scope of a query depend on attributes of assets. */
export function needsAttributes({
  scope,
  groupBy,
  within,
}: Pick<Query, 'scope' | 'groupBy' | 'within'>): boolean {
  return scope.attributes.length > 0 || [groupBy, ...within].some(({ kind }) => kind === 'attribute');
}

/** The metrics of a group: numerator, denominator, and those already included in others. */
export interface Members<Metric> {
  readonly numerator: readonly Metric[];
  readonly denominator: readonly Metric[];
  readonly within: readonly Metric[];
}

/** A group of metrics with its members for each measure. */
export interface PlannedGroup<Metric> {
  readonly name: string;
  /** Names of the groups around it, outermost first. */
  readonly path: readonly string[];
  /** The assets that those represent. */
  readonly pathAssetIds: readonly (string | null)[];
  readonly assetId: string | null;
  readonly measures: readonly Members<Metric>[];
}

/**
 * Groups metrics, in order of first appearance.
 *
 * @param found numerator and denominator metrics of each measure. @param within groupings around it, outermost first.
 * @param partNames names of the assets that are parts, by id; only for groups by part.
 */
export function groupMembers<Metric extends PlannedMetric>(
  found: readonly { readonly numerator: readonly Metric[]; readonly denominator: readonly Metric[] }[],
  by: GroupBy,
  attributes: AttributesById,
  partNames: ReadonlyMap<string, string> = NO_NAMES,
  within: readonly GroupBy[] = [],
): PlannedGroup<Metric>[] {
  const pathOf = pathOfGroup([...within, by], attributes, partNames);
  const parted = found.map(({ numerator, denominator }) => ({
    numerator: partedBy(numerator, pathOf),
    denominator: partedBy(denominator, pathOf),
  }));
  // Of names that differ only in capitals the first stands for all.
  const paths = new Map<string, readonly string[]>();
  for (const { numerator } of parted)
    for (const [key, [first]] of numerator) if (!paths.has(key)) paths.set(key, pathOf(first)!);
  const around = within.map((each, k) => assetsOfGroups(found, each, pathOf, k + 1));
  return [...paths].map(([key, path]) => {
    const measures = parted.map(({ numerator, denominator }) => {
      const all = numerator.get(key) ?? [];
      const counted = topmost(all);
      return {
        numerator: counted,
        denominator: topmost(denominator.get(key) ?? []),
        within: all.filter((metric) => !counted.includes(metric)),
      };
    });
    return {
      name: path[path.length - 1],
      path: path.slice(0, -1),
      pathAssetIds: around.map((assets, k) => assets.get(keyOfPath(path.slice(0, k + 1))) ?? null),
      assetId: assetOfGroup(
        by,
        measures.flatMap(({ numerator }) => numerator),
      ),
      measures,
    };
  });
}

/** The assets that groups represent, by the first `depth` names of their paths. */
function assetsOfGroups<Metric extends PlannedMetric>(
  found: readonly { readonly numerator: readonly Metric[] }[],
  by: GroupBy,
  pathOf: (metric: Metric) => readonly string[] | null,
  depth: number,
): Map<string, string | null> {
  const outer = (metric: Metric): readonly string[] | null => pathOf(metric)?.slice(0, depth) ?? null;
  const groups = partedBy(
    found.flatMap(({ numerator }) => numerator),
    outer,
  );
  return new Map([...groups].map(([key, metrics]) => [key, assetOfGroup(by, metrics)]));
}

const NO_NAMES: ReadonlyMap<string, string> = new Map();

/**
 * The part of an asset that a metric belongs to: the asset right below it on the way to the metric's own; null on the
 * asset itself and outside of it.
 * @example partOf({ path: ['1', '4', '9'] }, '1') // => '4'
 */
export function partOf({ path }: Pick<PlannedMetric, 'path'>, assetId: string | null): string | null {
  if (assetId === null) return path[0];
  const at = path.indexOf(assetId);
  return at < 0 ? null : (path[at + 1] ?? null);
}

/** The names of the groups of a metric, outermost first; null = it is in none. */
function pathOfGroup(
  all: readonly GroupBy[],
  attributes: AttributesById,
  partNames: ReadonlyMap<string, string>,
): (metric: PlannedMetric) => readonly string[] | null {
  const namers = all.map((by) => nameOfGroup(by, attributes, partNames));
  return (metric) => {
    const path = namers.map((nameOf) => nameOf(metric));
    return path.includes(null) ? null : (path as string[]);
  };
}

/** The name of the group of a metric; null = in none. */
function nameOfGroup(
  by: GroupBy,
  attributes: AttributesById,
  partNames: ReadonlyMap<string, string>,
): (metric: PlannedMetric) => string | null {
  switch (by.kind) {
    case 'metric':
      return ({ plantName, assetName, name }) => `${plantName} / ${assetName} / ${name}`;
    case 'asset':
      return ({ assetId, plantId, plantName, assetName }) =>
        assetId === plantId ? plantName : `${plantName} / ${assetName}`;
    case 'plant':
      return ({ plantName }) => plantName;
    case 'part':
      return (metric) => {
        const part = partOf(metric, by.assetId);
        return part === null ? null : (partNames.get(part) ?? part);
      };
    case 'assetKind':
      return ({ assetKind }) => assetKind;
    case 'attribute':
      return ({ assetId }) => String(attributeOf(attributes.get(assetId) ?? {}, by.name) ?? '');
    case 'all':
      return () => 'All';
  }
}

/**
 * The asset a group represents, if any: the plant of a plant group; for all together only if there is a
 * single metric.
 */
function assetOfGroup(by: GroupBy, metrics: readonly PlannedMetric[]): string | null {
  const [first] = metrics;
  if (by.kind === 'plant') return first.plantId;
  if (by.kind === 'part') return partOf(first, by.assetId);
  return metrics.every(({ assetId }) => assetId === first.assetId) ? first.assetId : null;
}

/** Between the names of a path, where no name has it. */
const BETWEEN = '\u0000';

const keyOfPath = (path: readonly string[]): string => path.map(nameKey).join(BETWEEN);

function partedBy<Metric>(
  metrics: readonly Metric[],
  pathOf: (metric: Metric) => readonly string[] | null,
): Map<string, Metric[]> {
  const groups = new Map<string, Metric[]>();
  for (const metric of metrics) {
    const path = pathOf(metric);
    if (path === null) continue;
    const key = keyOfPath(path);
    const group = groups.get(key);
    if (group) group.push(metric);
    else groups.set(key, [metric]);
  }
  return groups;
}

/** Window and periods of each plant by zone and calendar; plants with equal rules share them. */
export function placesOf(
  { bucket, fold, hours }: Pick<Query, 'bucket' | 'fold' | 'hours'>,
  metrics: readonly PlannedMetric[],
  calendars: readonly { readonly plantId: string; readonly calendar: WorkingCalendar }[],
  windowOf: (zone: string, calendar: WorkingCalendar) => Interval,
): Map<string, BucketSpans> {
  const laidOut = (window: Interval, zone: string, calendar: WorkingCalendar): BucketSpans =>
    fold === null
      ? bucketSpans(window, bucket, hours, zone, calendar)
      : foldedBuckets(bucketSpans(window, PERIOD_OF_FOLD[fold], hours, zone, calendar), fold);
  const byPlant = new Map(calendars.map(({ plantId, calendar }) => [plantId, calendar]));
  const places = new Map<string, BucketSpans>();
  const byRule = new Map<string, BucketSpans>();
  for (const { plantId, zone } of metrics) {
    if (places.has(plantId)) continue;
    const calendar = byPlant.get(plantId) ?? DEFAULT_CALENDAR;
    const rule = JSON.stringify([zone, calendar]);
    const made = byRule.get(rule) ?? laidOut(windowOf(zone, calendar), zone, calendar);
    byRule.set(rule, made);
    places.set(plantId, made);
  }
  return places;
}

/**
 * Metrics of a group by their periods; metrics with equal periods are pooled.
 *
 * @throws {BeaconError} BAD_INPUT if the periods of several sites cannot be combined.
 */
export function byPlace<Metric extends PlannedMetric>(
  metrics: readonly Metric[],
  summary: Summary,
  placeOf: (metric: Metric) => BucketSpans,
): Map<BucketSpans, Metric[]> {
  const parted = new Map<BucketSpans, Metric[]>();
  for (const metric of metrics) {
    const place = placeOf(metric);
    const members = parted.get(place);
    if (members) members.push(metric);
    else parted.set(place, [metric]);
  }
  if (parted.size > 1 && !ADDS_UP.has(summary)) {
    throw new BeaconError(
      'BAD_INPUT',
      `Over plants with different zones or calendars only sums can be put together, not the ${summary}. Group by plant.`,
      'groupBy',
    );
  }
  return parted;
}

/**
 * Refuses metrics that cannot be pooled: kind and unit must be equal, and the summary must make sense for
 * several.
 *
 * @throws {BeaconError} BAD_INPUT naming the metrics that differ.
 */
export function refuseMixture(metrics: readonly PlannedMetric[], summary: Summary): void {
  const [first] = metrics;
  const odd = metrics.find(({ unit, kind }) => unit !== first.unit || kind !== first.kind);
  if (odd) {
    throw new BeaconError(
      'BAD_INPUT',
      `${first.name} of ${first.assetName} (${first.unit || 'no unit'}, ${first.kind}) and ${odd.name} of ${odd.assetName} ` +
        `(${odd.unit || 'no unit'}, ${odd.kind}) cannot be put together. Group by metric.`,
      'groupBy',
    );
  }
  if (summary === 'last' || summary === 'first') {
    throw new BeaconError(
      'BAD_INPUT',
      `The ${summary} of several metrics together means nothing. Choose a sum or a mean, or group by metric.`,
      'summary',
    );
  }
  if (metrics.some(({ origin }) => origin === 'derived')) {
    throw new BeaconError('BAD_INPUT', 'Derived metrics are not put together. Group by metric.', 'groupBy');
  }
  checkSummary(summary, first.kind, 'summary', first.name);
}
