import { ADDS_UP, SUMMARY_WORDS, type Summary } from '../domain/metric';
import { BeaconError } from '../errors';
import type { Summarised } from '../summary/valueOf';
import { attributeOf } from '../text/sameName';
import type { AttributesById, PlannedMetric } from './members';

/** What metrics are divided by: an attribute of the assets they measure. */
export interface Divisor<Metric> {
  /** The metrics that count: those with an asset that has the attribute. */
  readonly counted: readonly Metric[];
  readonly leftOut: readonly Metric[];
  /** Each asset that has it, once. */
  readonly holders: readonly { readonly assetId: string; readonly value: number }[];
  /** Sum over the holders; null without any. */
  readonly total: number | null;
}

/**
 * By what metrics are divided, such as their electricity by "Floor area (m²)". Each metric belongs to the nearest asset that
 * has the attribute: its own, or the next one above. The assets are added up, each once, and none that lies below another of
 * them, because that one includes it. What has no such asset, or one whose attribute is no number above 0, does not count, so
 * that nothing is divided by an area it is not measured on.
 *
 * @param attributes of all assets on the paths of the metrics.
 * @example
 * divisorOf([{ path: ['1', '4'] }, { path: ['1', '5'] }], 'Beds', new Map([['1', { Beds: 40 }]])).total // => 40
 */
export function divisorOf<Metric extends Pick<PlannedMetric, 'path'>>(
  metrics: readonly Metric[],
  name: string,
  attributes: AttributesById,
): Divisor<Metric> {
  const counted: Metric[] = [];
  const leftOut: Metric[] = [];
  const found = new Map<string, { readonly above: readonly string[]; readonly value: number }>();
  for (const metric of metrics) {
    const at = metric.path.findLastIndex((id) => attributeOf(attributes.get(id) ?? {}, name) !== undefined);
    const value = at < 0 ? NaN : Number(attributeOf(attributes.get(metric.path[at])!, name));
    if (!(value > 0) || !Number.isFinite(value)) {
      leftOut.push(metric);
      continue;
    }
    counted.push(metric);
    found.set(metric.path[at], { above: metric.path.slice(0, at), value });
  }
  const holders = [...found].flatMap(([assetId, { above, value }]) =>
    above.some((id) => found.has(id)) ? [] : [{ assetId, value }],
  );
  const total = holders.length === 0 ? null : holders.reduce((sum, { value }) => sum + value, 0);
  return { counted, leftOut, holders, total };
}

/** Values divided by what {@link divisorOf} found; without it they are missing. */
export function dividedBy(values: readonly Summarised[], total: number | null): readonly Summarised[] {
  return values.map((each) => ({ ...each, value: quotient(each.value, total) }));
}

/** null where either is missing. */
export function quotient(value: number | null, total: number | null): number | null {
  return value === null || total === null ? null : value / total;
}

/**
 * Refuses what would mislead: the mean of several metrics, divided by the areas of all of them, is neither one's.
 *
 * @throws {BeaconError} BAD_INPUT if several are summarised to something that is no sum.
 */
export function refuseSharedDivisor(counted: readonly unknown[], summary: Summary, name: string): void {
  if (counted.length < 2 || ADDS_UP.has(summary)) return;
  throw new BeaconError(
    'BAD_INPUT',
    `The ${SUMMARY_WORDS[summary]} of ${counted.length} metrics together cannot be shown per ${name}. Choose a sum, or group by metric.`,
    'summary',
  );
}
