import type { MetricOrigin } from '../domain/metric';
import type { WorkingCalendar } from '../schemas/calendar';
import { PLAIN_CALENDAR } from '../calendar/workingCalendar';
import { ADDS_UP, type MetricKind, type Summary } from '../domain/metric';
import type { GroupBy, Query } from '../domain/query';
import { BeaconError } from '../errors';
import { topmost } from '../scope/scope';
import { checkSummary } from '../summary/checkSummary';
import { bucketSpans, type BucketSpans } from '../time/bucketSpans';
import type { Interval } from '../time/interval';

/** What planning needs to know of a metric and its asset. */
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

/** Attributes of assets, by the asset's id; only of those that are asked about. */
export type AttributesById = ReadonlyMap<string, Readonly<Record<string, string | number>>>;

const OF_CALENDAR: ReadonlySet<string | null> = new Set(['shift', 'week', 'financialYear']);

/** Shifts, working hours, weeks and financial years differ from site to site; hours, days and months do not. */
export function needsCalendar({
  window,
  bucket,
  hours,
}: Pick<Query, 'window' | 'bucket' | 'hours'>): boolean {
  const unit = window.kind === 'absolute' ? null : window.unit;
  return hours !== null || OF_CALENDAR.has(bucket) || OF_CALENDAR.has(unit);
}

/** Do the groups or the scope of a query ask about attributes of assets? */
export function needsAttributes({ scope, groupBy }: Pick<Query, 'scope' | 'groupBy'>): boolean {
  return scope.attributes.length > 0 || groupBy.kind === 'attribute';
}

/** The metrics of a group: those that count, those they are divided by, and those that are part of others. */
export interface Members<Metric> {
  readonly upper: readonly Metric[];
  readonly lower: readonly Metric[];
  readonly within: readonly Metric[];
}

/** A group of metrics with its members for each measure. */
export interface PlannedGroup<Metric> {
  readonly name: string;
  readonly assetId: string | null;
  readonly measures: readonly Members<Metric>[];
}

/**
 * Puts metrics into groups, in the order in which the groups first come up.
 *
 * @param found for each measure its metrics, and those they are divided by.
 */
export function groupMembers<Metric extends PlannedMetric>(
  found: readonly { readonly upper: readonly Metric[]; readonly lower: readonly Metric[] }[],
  by: GroupBy,
  attributes: AttributesById,
): PlannedGroup<Metric>[] {
  const nameOf = nameOfGroup(by, attributes);
  const parted = found.map(({ upper, lower }) => ({
    upper: partedBy(upper, nameOf),
    lower: partedBy(lower, nameOf),
  }));
  const names = new Set(parted.flatMap(({ upper }) => [...upper.keys()]));
  return [...names].map((name) => {
    const measures = parted.map(({ upper, lower }) => {
      const all = upper.get(name) ?? [];
      const counted = topmost(all);
      return {
        upper: counted,
        lower: topmost(lower.get(name) ?? []),
        within: all.filter((metric) => !counted.includes(metric)),
      };
    });
    return {
      name,
      assetId: assetOfGroup(
        by,
        measures.flatMap(({ upper }) => upper),
      ),
      measures,
    };
  });
}

function nameOfGroup(by: GroupBy, attributes: AttributesById): (metric: PlannedMetric) => string {
  switch (by.kind) {
    case 'metric':
      return ({ plantName, assetName, name }) => `${plantName} / ${assetName} / ${name}`;
    case 'asset':
      return ({ assetId, plantId, plantName, assetName }) =>
        assetId === plantId ? plantName : `${plantName} / ${assetName}`;
    case 'plant':
      return ({ plantName }) => plantName;
    case 'assetKind':
      return ({ assetKind }) => assetKind;
    case 'attribute':
      return ({ assetId }) => String(attributes.get(assetId)?.[by.name] ?? '');
    case 'all':
      return () => 'All';
  }
}

/** The asset a group stands for, if it is one: of plants the plant, of all together only where it is a single metric. */
function assetOfGroup(by: GroupBy, metrics: readonly PlannedMetric[]): string | null {
  const [first] = metrics;
  if (by.kind === 'plant') return first.plantId;
  return metrics.every(({ assetId }) => assetId === first.assetId) ? first.assetId : null;
}

function partedBy<Metric>(
  metrics: readonly Metric[],
  nameOf: (metric: Metric) => string,
): Map<string, Metric[]> {
  const groups = new Map<string, Metric[]>();
  for (const metric of metrics) {
    const name = nameOf(metric);
    const group = groups.get(name);
    if (group) group.push(metric);
    else groups.set(name, [metric]);
  }
  return groups;
}

/** Window and periods of each plant, by its zone and calendar; plants of the same rules share them. */
export function placesOf(
  { bucket, hours }: Pick<Query, 'bucket' | 'hours'>,
  metrics: readonly PlannedMetric[],
  calendars: readonly { readonly plantId: string; readonly calendar: WorkingCalendar }[],
  windowOf: (zone: string, calendar: WorkingCalendar) => Interval,
): Map<string, BucketSpans> {
  const byPlant = new Map(calendars.map(({ plantId, calendar }) => [plantId, calendar]));
  const places = new Map<string, BucketSpans>();
  const byRule = new Map<string, BucketSpans>();
  for (const { plantId, zone } of metrics) {
    if (places.has(plantId)) continue;
    const calendar = byPlant.get(plantId) ?? PLAIN_CALENDAR;
    const rule = JSON.stringify([zone, calendar]);
    const made = byRule.get(rule) ?? bucketSpans(windowOf(zone, calendar), bucket, hours, zone, calendar);
    byRule.set(rule, made);
    places.set(plantId, made);
  }
  return places;
}

/**
 * Metrics of a group by their periods: those of one site's rules are pooled together.
 *
 * @throws {BeaconError} BAD_INPUT where the periods of several sites cannot be put together.
 */
export function byPlace<Metric extends PlannedMetric>(
  metrics: readonly Metric[],
  summary: Summary,
  places: ReadonlyMap<string, BucketSpans>,
): Map<BucketSpans, Metric[]> {
  const parted = new Map<BucketSpans, Metric[]>();
  for (const metric of metrics) {
    const place = places.get(metric.plantId)!;
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
 * Metrics can be put together when kind and unit are the same, and the summary means something for several.
 *
 * @throws {BeaconError} BAD_INPUT naming what does not go together.
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
