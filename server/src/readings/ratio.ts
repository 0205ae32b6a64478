import type { Summary } from '@vivid-beacon/core';
import {
  addedUp,
  byPlace,
  cellsOf,
  NOTHING,
  ratioOf,
  refuseMixture,
  type Summarised,
} from '@vivid-beacon/core/src/aggregation';
import type { MetricRow } from '../metrics/sql';
import type { PlaceOf, SharedTime } from './metricReads';
import { METRIC_READS, poolMetrics, summariseMetric } from './planner';
import type { ReadContext } from './readContext';

/** One side of a ratio: metrics that are summarised together. */
export interface Side {
  readonly rows: readonly MetricRow[];
  readonly summary: Summary;
}

/** Values of a ratio, one per period. */
export interface RatioAnswer {
  readonly values: readonly Summarised[];
  /** What was divided, over the time that counts. */
  readonly numerator: readonly Summarised[];
  readonly denominator: readonly Summarised[];
  /** null if both sides have data all the time. */
  readonly shared: SharedTime | null;
}

/**
 * A ratio over periods: both sides are summed over the time, and the members, in which both have data, and then
 * divided. The coverage is that shared share.
 */
export async function summariseRatio(
  context: ReadContext,
  top: Side,
  bottom: Side,
  factor: number,
  placeOf: PlaceOf,
): Promise<RatioAnswer> {
  const sides = [top, bottom];
  const [over, under] = await Promise.all(sides.map((side) => poolSide(context, side, placeOf)));
  const cells = cellsOf(sides.map(({ rows }) => rows));
  const complete = cells.every((cell) => cell.complete);
  const isShared = (i: number): boolean => complete && over[i].coverage === 1 && under[i].coverage === 1;
  const partly = over.flatMap((_, i) => (isShared(i) ? [] : [i]));
  if (partly.length === 0) {
    const values = over.map((each, i) => ratioOf(each, under[i], factor, 1));
    return { values, numerator: over, denominator: under, shared: null };
  }
  const shared = await METRIC_READS.shareTime(context, cells, placeOf, new Set(partly));
  const [a, b] = await Promise.all(sides.map((side) => poolSide(context, side, placeOf, shared)));
  const counted = (all: readonly Summarised[], parts: readonly Summarised[]): Summarised[] =>
    all.map((each, i) => (isShared(i) ? each : { ...parts[i], coverage: shared.shares[i] }));
  const [numerator, denominator] = [counted(over, a), counted(under, b)];
  const values = numerator.map((each, i) => ratioOf(each, denominator[i], factor, each.coverage));
  return { values, numerator, denominator, shared };
}

/** Metrics summarised together, those of plants with other periods added up. @throws {BeaconError} for a mixture. */
export async function poolSide(
  context: ReadContext,
  { rows, summary }: Side,
  placeOf: PlaceOf,
  shared?: SharedTime,
): Promise<readonly Summarised[]> {
  const counted = shared ? rows.filter((row) => shared.spansOf(row) !== null) : rows;
  if (counted.length === 0) return new Array<Summarised>(placeOf(rows[0]).size).fill(NOTHING);
  if (counted.length === 1) {
    const [row] = counted;
    const place = placeOf(row);
    const buckets = shared ? { ...place, spans: shared.spansOf(row)! } : place;
    return (await summariseMetric(context, row, summary, buckets)).values;
  }
  refuseMixture(counted, summary);
  const parts = await Promise.all(
    [...byPlace(counted, summary, placeOf)].map(
      async ([place, members]) =>
        (await poolMetrics(context, members, summary, place, shared && ((row) => shared.spansOf(row)!)))
          .values,
    ),
  );
  return parts.length === 1 ? parts[0] : addedUp(parts);
}
