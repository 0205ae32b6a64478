import fc from 'fast-check';
import { seriesOf } from '../series/series';
import { AMOUNT, ONE_HOUR, LEVEL, MINUTE, minutely, REGISTER, STATE } from '../testing/makeSeries';
import { formulaWords } from './formulaWords';
import { unitOfMeasure } from '../domain/metric';
import { measure, measureBuckets } from './measure';
import { counterStep } from './counterStep';
import type { MetricReading } from '../domain/metric';
import { summarise, summariseSpans } from './summarise';

const NOW = 10 * ONE_HOUR;

describe('summarise', () => {
  it('weights a level by how long each value held', () => {
    const series = seriesOf([0, MINUTE], [20, 30]);
    expect(summarise(series, 'mean', LEVEL, { start: 0, end: 4 * MINUTE }, NOW)).toEqual({
      value: 27.5,
      samples: 2,
      coverage: 1,
    });
  });

  it('uses the value that held when the window began', () => {
    const series = seriesOf([-2 * MINUTE, 2 * MINUTE], [10, 20]);
    expect(summarise(series, 'mean', LEVEL, { start: 0, end: 4 * MINUTE }, NOW).value).toBe(15);
  });

  it('trusts a value no longer than the longest allowed gap, and says so in the coverage', () => {
    const series = seriesOf([0, 50 * MINUTE], [10, 20]);
    const { value, coverage } = summarise(series, 'mean', LEVEL, { start: 0, end: 60 * MINUTE }, NOW);
    expect(value).toBe(15);
    expect(coverage).toBeCloseTo(20 / 60, 12);
  });

  it('never counts a missing sample as zero', () => {
    expect(summarise(seriesOf([0], [NaN]), 'sum', AMOUNT, { start: 0, end: MINUTE }, NOW)).toEqual({
      value: null,
      samples: 0,
      coverage: 0,
    });
    expect(summarise(minutely([4, NaN, 8]), 'mean', AMOUNT, { start: 0, end: 3 * MINUTE }, NOW).value).toBe(
      6,
    );
  });

  it('takes only what has passed of an unfinished window', () => {
    const { value, coverage } = summarise(
      minutely([1, 1, 1, 1, 1]),
      'sum',
      AMOUNT,
      { start: 0, end: ONE_HOUR },
      5 * MINUTE,
    );
    expect(value).toBe(5);
    expect(coverage).toBe(1);
  });

  it('counts windows half-open: a sample on the end belongs to the next', () => {
    const series = minutely([1, 2, 4, 8]);
    expect(summarise(series, 'sum', AMOUNT, { start: 0, end: 2 * MINUTE }, NOW).value).toBe(3);
    expect(summarise(series, 'sum', AMOUNT, { start: 2 * MINUTE, end: 4 * MINUTE }, NOW).value).toBe(12);
  });

  it('counts a register through a reset and a rollover', () => {
    expect(
      summarise(minutely([100, 110, 3, 8]), 'increase', REGISTER, { start: 0, end: 4 * MINUTE }, NOW).value,
    ).toBe(18);
    const meter = { ...REGISTER, rollover: 1000 };
    expect(
      summarise(minutely([990, 998, 6]), 'increase', meter, { start: 0, end: 3 * MINUTE }, NOW).value,
    ).toBe(16);
    expect(counterStep(400, 5, 1000)).toBe(5);
  });

  it('adds increases of neighbouring windows up to the whole', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 2, maxLength: 40 }),
        fc.integer({ min: 1, max: 2_000_000 }),
        (steps, cut) => {
          const total = steps.map((_, i) => steps.slice(0, i + 1).reduce((a, b) => a + b, 0));
          const series = minutely(total);
          const end = steps.length * MINUTE;
          const middle = Math.min(cut, end - 1);
          const over = (start: number, to: number): number =>
            summarise(series, 'increase', REGISTER, { start, end: to }, NOW).value ?? 0;
          expect(over(0, middle) + over(middle, end)).toBeCloseTo(total[total.length - 1] - total[0], 6);
        },
      ),
    );
  });

  it('tells how long a state ran', () => {
    const series = seriesOf([0, 5 * MINUTE, 8 * MINUTE], [1, 0, 1]);
    expect(summarise(series, 'share', STATE, { start: 0, end: 10 * MINUTE }, NOW).value).toBeCloseTo(70, 9);
    expect(summarise(series, 'duration', STATE, { start: 0, end: 10 * MINUTE }, NOW).value).toBeCloseTo(
      7 / 60,
      9,
    );
  });

  it('gives min, max, first, last, count, median and spread of what lies inside', () => {
    const series = minutely([5, 1, 9, 3]);
    const window = { start: 0, end: 4 * MINUTE };
    const of = (summary: Parameters<typeof summarise>[1]): number | null =>
      summarise(series, summary, LEVEL, window, NOW).value;
    expect([of('min'), of('max'), of('first'), of('last'), of('count'), of('p50')]).toEqual([
      1, 9, 5, 3, 4, 4,
    ]);
    expect(of('sd')).toBeCloseTo(3.415650255, 8);
    expect(summarise(seriesOf([0], [5]), 'sd', LEVEL, window, NOW).value).toBeNull();
  });

  it('refuses a summary that makes no sense for the kind', () => {
    expect(() => summarise(minutely([1]), 'sum', LEVEL, { start: 0, end: 1 }, NOW)).toThrow(
      'makes no sense for a metric of kind level',
    );
  });

  it('has nothing to say of a window that has not begun', () => {
    expect(summarise(minutely([1]), 'mean', LEVEL, { start: NOW + 1, end: NOW + ONE_HOUR }, NOW)).toEqual({
      value: null,
      samples: 0,
      coverage: 0,
    });
  });
});

describe('measure', () => {
  const of = (values: number[]) => ({ series: minutely(values), reading: AMOUNT, summary: 'sum' as const });

  it('divides the sums, it does not average the ratios', () => {
    // 1 of 10 and 9 of 10: mean of ratios would be 50 % only because the weights are equal; these are not.
    const read = measure(of([1, 30]), of([10, 100]), 100, { start: 0, end: 2 * MINUTE }, NOW);
    expect(read.value).toBeCloseTo((100 * 31) / 110, 12);
  });

  it('has no value when the lower part is zero or missing', () => {
    expect(measure(of([1]), of([0]), 1, { start: 0, end: MINUTE }, NOW).value).toBeNull();
    expect(measure(of([1]), of([]), 1, { start: 0, end: MINUTE }, NOW)).toMatchObject({
      value: null,
      coverage: 0,
    });
  });

  it('gives buckets that agree with single windows', () => {
    const edges = [0, 2 * MINUTE, 5 * MINUTE];
    const series = of([1, 2, 4, 8, 16]);
    expect(measureBuckets(series, null, 1, edges, NOW).map(({ value }) => value)).toEqual([3, 28]);
  });

  it('writes the unit the user chose', () => {
    const kwh = { summary: 'sum', unit: 'kWh' } as const;
    expect(unitOfMeasure(kwh, { summary: 'sum', unit: 'm³' }, null)).toBe('kWh/m³');
    expect(unitOfMeasure(kwh, { summary: 'sum', unit: 'kg' }, 'kWh per load')).toBe('kWh per load');
    expect(unitOfMeasure({ summary: 'share', unit: '' }, null, null)).toBe('%');
  });

  it('says how it is made', () => {
    const part = { kind: 'amount', assetName: 'Dryer 5' } as const;
    expect(
      formulaWords(
        { ...part, summary: 'sum', metricName: 'Gas used' },
        { ...part, summary: 'sum', metricName: 'Dried weight' },
        100,
      ),
    ).toBe('sum of Gas used (Dryer 5) ÷ sum of Dried weight (Dryer 5) × 100');
  });
});

describe('amounts that count by the share of their interval', () => {
  const SPREAD: MetricReading = {
    kind: 'amount',
    intervalMs: ONE_HOUR,
    maxGapMs: ONE_HOUR,
    rollover: null,
    isSpread: true,
  };

  it('lose nothing however a window is cut up', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 1, maxLength: 24 }),
        fc.uniqueArray(fc.integer({ min: 1, max: 24 * 60 - 1 }), { maxLength: 12 }),
        (values, cuts) => {
          const series = seriesOf(
            values.map((_, i) => i * ONE_HOUR),
            values,
          );
          const end = values.length * ONE_HOUR;
          const edges = [0, ...cuts.map((each) => each * MINUTE).filter((each) => each < end), end].sort(
            (a, b) => a - b,
          );
          const spans = {
            start: edges.slice(0, -1),
            end: edges.slice(1),
            into: edges.slice(1).map((_, i) => i),
          };
          const parts = summariseSpans(series, 'sum', SPREAD, spans, spans.start.length);
          const whole = values.reduce((a, b) => a + b, 0);
          expect(parts.reduce((sum, { value }) => sum + value!, 0)).toBeCloseTo(whole, 6);
          expect(parts.every(({ coverage }) => coverage === 1)).toBe(true);
        },
      ),
    );
  });
});
