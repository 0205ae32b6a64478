import fc from 'fast-check';
import { BUCKETS, type Bucket } from './buckets';
import {
  periodAsLongAs,
  periodOfDistribution,
  periodOfKind,
  periodOfLevels,
  periodOfSparkline,
  periodOfStretch,
  periodOfTrend,
} from './automaticPeriod';
import { DAY_MS, HOUR_MS } from './lengths';

const LONGEST = 30 * 366 * DAY_MS;
const RULES = {
  periodOfTrend,
  periodOfSparkline,
  periodOfLevels,
  periodOfStretch,
  periodOfDistribution,
  periodAsLongAs,
};
const rank = (bucket: Bucket | null): number => (bucket === null ? -1 : BUCKETS.indexOf(bucket));

describe('automatic periods', () => {
  it.each(Object.entries(RULES))('%s: a longer window never gets finer periods', (_, rule) => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: LONGEST }), fc.integer({ min: 1, max: LONGEST }), (a, b) => {
        expect(rank(rule(Math.min(a, b)))).toBeLessThanOrEqual(rank(rule(Math.max(a, b))));
      }),
    );
  });

  it.each([
    [HOUR_MS, 'hour'],
    [DAY_MS, 'day'],
    [7 * DAY_MS, 'week'],
    [31 * DAY_MS, 'month'],
    [92 * DAY_MS, 'quarter'],
    [366 * DAY_MS, 'year'],
  ])('as long as %d ms is the %s', (length, period) => {
    expect(periodAsLongAs(length)).toBe(period);
  });

  it('a metric is first shown as its kind is logged', () => {
    expect(periodOfKind({ kind: 'level', origin: 'samples' })).toBeNull();
    expect(periodOfKind({ kind: 'register', origin: 'samples' })).toBe('hour');
    expect(periodOfKind({ kind: 'amount', origin: 'reference' })).toBe('day');
  });
});
