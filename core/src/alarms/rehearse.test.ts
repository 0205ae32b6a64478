import { above, makeCondition } from '../testing/makeCondition';
import { ONE_DAY, ONE_HOUR, MINUTE, minutely } from '../testing/makeSeries';
import { seriesOf } from '../series/series';
import { rehearse, rehearseLimits } from './rehearse';
import { runCondition } from './runCondition';

const RULE = makeCondition(above(205, 4));

describe('rehearse', () => {
  const window = { start: 0, end: 10 * MINUTE };

  it('counts how often, how long and for what share a rule would have stood', () => {
    const series = minutely([200, 210, 210, 200, 210, 200]);
    const result = rehearse([{ condition: RULE, series }], window);
    expect(result.alarms).toEqual([
      { start: MINUTE, end: 3 * MINUTE },
      { start: 4 * MINUTE, end: 5 * MINUTE },
    ]);
    expect(result).toMatchObject({ longestMs: 2 * MINUTE, share: 0.3 });
  });

  it('lets an alarm that has not returned stand to the end', () => {
    expect(rehearse([{ condition: RULE, series: minutely([210]) }], window).longestMs).toBe(10 * MINUTE);
  });

  it('counts only time with data, and all of it where silence is looked for', () => {
    // Data in the first three minutes, then nothing for longer than the longest allowed gap of an hour.
    const long = { start: 0, end: 10 * ONE_HOUR };
    const [, ...rest] = minutely([200, 210, 210, 200]).t;
    const series = seriesOf([0, ...rest], [200, 210, 210, 200]);
    const limit = rehearse([{ condition: RULE, series }], long);
    const gap = RULE.maxGapMs;
    expect(limit.dataMs).toBe(3 * MINUTE + gap);
    expect(limit.share).toBeCloseTo((2 * MINUTE) / limit.dataMs, 12);
    const silent = makeCondition({ kind: 'silence', forMs: ONE_HOUR });
    expect(rehearse([{ condition: silent, series }], long).dataMs).toBe(10 * ONE_HOUR);
    expect(rehearse([{ condition: RULE, series: seriesOf([], []) }], long)).toMatchObject({
      dataMs: 0,
      share: 0,
    });
  });

  it('joins the metrics of a scope: alarms add up, time in alarm does not count twice', () => {
    const series = minutely([200, 210, 210, 200]);
    const result = rehearse(
      [
        { condition: RULE, series },
        { condition: RULE, series },
      ],
      window,
    );
    expect(result.alarms).toHaveLength(2);
    expect(result.share).toBeCloseTo(0.2);
  });

  it('tells of every other limit what live evaluation would do with it', () => {
    const series = minutely([200, 206, 204, 210, 209, 216, 200, 207, 200]);
    const { curve } = rehearseLimits([{ condition: RULE, series }], window, 1);
    expect(curve[0].limit).toBe(200);
    expect(curve.at(-1)!.limit).toBe(216);
    for (const { limit, fires } of curve) {
      const live = runCondition(makeCondition(above(limit, 4)), series).changes;
      expect(fires).toBe(live.filter(({ kind }) => kind === 'raise').length);
    }
  });

  it('has no other limits where no single one decides', () => {
    const condition = makeCondition({ kind: 'outside', low: 1, high: 2, deadband: 0 });
    expect(rehearseLimits([{ condition, series: minutely([1, 2, 3]) }], window, 1)).toEqual({
      curve: [],
      onceAWeek: null,
    });
  });

  // A peak a day, of 1 to 28: four weeks.
  const daily = seriesOf(
    Array.from({ length: 56 }, (_, i) => i * 12 * ONE_HOUR),
    Array.from({ length: 56 }, (_, i) => (i % 2 ? 0 : i / 2 + 1)),
  );
  const weeks = { start: 0, end: 28 * ONE_DAY };

  it('finds the limit that would give at most one a week', () => {
    const high = rehearseLimits([{ condition: makeCondition(above(5)), series: daily }], weeks, 2);
    expect(high.onceAWeek!.fires).toBe(4);
    // The four highest peaks are 25 to 28.
    expect(high.onceAWeek!.limit).toBeGreaterThanOrEqual(24);
    expect(high.onceAWeek!.limit).toBeLessThan(24.01);
  });

  it('finds it from below too', () => {
    const test = { kind: 'limit', side: 'below', limit: -5, deadband: 0 } as const;
    const series = seriesOf(
      daily.t,
      daily.v.map((v) => -v),
    );
    const { onceAWeek } = rehearseLimits([{ condition: makeCondition(test), series }], weeks, 2);
    expect(onceAWeek).toMatchObject({ fires: 4 });
    expect(onceAWeek!.limit).toBeLessThanOrEqual(-24);
  });

  it('counts at the limit it offers, as that is shown', () => {
    // Peaks of 24.6 and 25.4 besides: at 24.55 as shown it would fire once more than at the exact limit.
    const series = seriesOf(
      Float64Array.from(daily.t),
      Array.from(daily.v, (v) => (v === 24 ? 24.549 : v)),
    );
    for (const decimals of [0, 1, 2]) {
      const { onceAWeek } = rehearseLimits([{ condition: makeCondition(above(5)), series }], weeks, decimals);
      const { limit, fires } = onceAWeek!;
      expect(Number(limit.toFixed(decimals))).toBe(limit);
      const live = runCondition(makeCondition(above(limit)), series).changes;
      expect(fires).toBe(live.filter(({ kind }) => kind === 'raise').length);
      expect(fires).toBeLessThanOrEqual(4);
    }
  });

  it('prefers a limit nearer to everyday values that fires no more often', () => {
    // A swing around 0 and, each week, one rise through 10, 20 and 30: every limit between fires once a week.
    const hours = 28 * 24;
    const series = seriesOf(
      Array.from({ length: hours }, (_, i) => i * ONE_HOUR),
      Array.from({ length: hours }, (_, i) => ({ 100: 10, 101: 20, 102: 30 })[i % 168] ?? Math.sin(i)),
    );
    const { onceAWeek } = rehearseLimits([{ condition: makeCondition(above(5)), series }], weeks, 1);
    expect(onceAWeek).toEqual({ limit: expect.any(Number) as number, fires: 4 });
    expect(onceAWeek!.limit).toBeLessThanOrEqual(1.5);
    // With a delay of two hours a limit inside the rise fires less often than a higher one.
    const slow = makeCondition(above(5), { onDelayMs: 2 * ONE_HOUR });
    const found = rehearseLimits([{ condition: slow, series }], weeks, 1).onceAWeek!;
    expect(found.fires).toBeLessThanOrEqual(4);
    expect(found.limit).toBeLessThanOrEqual(10);
  });

  it('counts those outside the working hours of the site', () => {
    const calendar = {
      shifts: [{ name: 'Day', days: [1, 2, 3, 4, 5, 6, 7], from: '06:00', to: '14:00' }],
      holidays: [],
      firstWeekday: 1,
      financialYearMonth: 1,
    };
    const condition = makeCondition(above(5), { site: { zone: 'UTC', calendar } });
    const series = seriesOf(
      [1, 2, 7, 8, 15, 16].map((h) => h * ONE_HOUR),
      [9, 0, 9, 0, 9, 0],
    );
    expect(rehearse([{ condition, series }], { start: 0, end: ONE_DAY })).toMatchObject({ outsideHours: 2 });
  });
});
