import type { Bucket } from '../time/buckets';
import type { Interval } from '../time/interval';
import { unionOf } from '../time/intervals';
import { coveredValue } from '../bands/targetBand';

/** Values by period, as a query gives them for one measure. */
interface ByPeriod {
  readonly values: readonly (number | null)[];
  readonly coverage: readonly number[];
  readonly samples: readonly number[];
}

/** A period with some data, but under the minimum coverage. */
export interface ThinPeriod extends Interval {
  readonly value: number;
  readonly coverage: number;
}

/** A trend made of values by period. */
export interface PeriodCourse {
  readonly bucket: Bucket;
  readonly t: number[];
  /** Null where a period has too little data. */
  readonly v: (number | null)[];
  readonly until: number[];
  /** Periods whose value is of too little data to be drawn with the others. */
  readonly thin: ThinPeriod[];
  /** Periods without any value, joined, up to now. */
  readonly gaps: Interval[];
  readonly samples: number;
}

/**
 * Values by period as a trend: the periods that have begun, or all of them.
 *
 * @param periods start and end of each, ms. @param ahead whether future periods are known too.
 *
 * @example periodCourse({ start: [0, 10], end: [10, 20] }, { values: [5, null], coverage: [1, 0], samples:
 * [3, 0] }, 'hour', 14).gaps
 * // => [{ start: 10, end: 14 }]
 */
export function periodCourse(
  periods: { readonly start: readonly number[]; readonly end: readonly number[] },
  { values, coverage, samples }: ByPeriod,
  bucket: Bucket,
  now: number,
  ahead = false,
): PeriodCourse {
  const t = ahead ? [...periods.start] : periods.start.filter((start) => start < now);
  const v = t.map((_, i) => coveredValue({ value: values[i], coverage: coverage[i] }));
  const until = periods.end.slice(0, t.length);
  const gaps = t.flatMap((start, i) => (values[i] === null ? [{ start, end: Math.min(until[i], now) }] : []));
  return {
    bucket,
    t,
    v,
    until,
    thin: t.flatMap((start, i) => {
      const value = values[i];
      return value === null || v[i] !== null ? [] : [{ start, end: until[i], value, coverage: coverage[i] }];
    }),
    gaps: unionOf(gaps.filter(({ start, end }) => end > start)),
    samples: t.reduce((n, _, i) => n + samples[i], 0),
  };
}
