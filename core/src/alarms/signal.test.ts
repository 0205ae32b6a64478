import { makeCondition } from '../testing/makeCondition';
import { AMOUNT, ONE_DAY, ONE_HOUR, LEVEL, MINUTE, minutely, REGISTER, STATE } from '../testing/makeSeries';
import { seriesOf, type Series } from '../series/series';
import { formatLength, formatValue } from '../format/format';
import { testWords, type AlarmTest } from './alarmTest';
import { chartPoints } from './chartPoints';
import { INITIAL_CONDITION, type AlarmCondition } from './condition';
import { runCondition } from './runCondition';
import { fitAlarmModel } from './signal';
import { hourOfWeek } from './tests/baseline';

const NEWYEAR = Date.UTC(2026, 0, 1);
const told = (condition: AlarmCondition, series: Series, until?: number): string[] =>
  runCondition(condition, series, INITIAL_CONDITION, until).changes.map(
    ({ kind, t }) => `${kind} ${(t - series.t[0]) / MINUTE}`,
  );

describe('outside a band', () => {
  it('raises on either side, not on the ends, and returns inside the deadband', () => {
    const condition = makeCondition({ kind: 'outside', low: 3, high: 6, deadband: 0.5 });
    expect(told(condition, minutely([3, 6, 6.1, 5.6, 5.5, 2.9, 3.4, 3.5]))).toEqual([
      'raise 2',
      'return 4',
      'raise 5',
      'return 7',
    ]);
  });
});

describe('a change over a time', () => {
  const change = (parts: object): AlarmTest =>
    ({
      kind: 'change',
      side: 'rise',
      limit: 5,
      inPercent: false,
      overMs: 3 * MINUTE,
      deadband: 0,
      ...parts,
    }) as AlarmTest;

  it('is against the value that stood then, and is not told before there is one', () => {
    expect(told(makeCondition(change({})), minutely([0, 9, 9, 9, 9, 9, 15]))).toEqual([
      'raise 3',
      'return 4',
      'raise 6',
    ]);
  });

  it('tells a fall, or either', () => {
    expect(told(makeCondition(change({ side: 'fall' })), minutely([9, 9, 9, 3, 9]))).toEqual([
      'raise 3',
      'return 4',
    ]);
    expect(told(makeCondition(change({ side: 'either' })), minutely([9, 9, 9, 3, 9, 9, 9]))).toEqual([
      'raise 3',
      'return 4',
      'raise 6',
    ]);
  });

  it('in percent is of the size of what it was: of a negative one too, of nothing none', () => {
    const percent = makeCondition(change({ inPercent: true, limit: 50 }));
    expect(told(percent, minutely([10, 10, 10, 16]))).toEqual(['raise 3']);
    expect(told(percent, minutely([-10, -10, -10, -4]))).toEqual(['raise 3']);
    expect(told(percent, minutely([0, 0, 0, 16, 16]))).toEqual([]);
  });

  it('is not told over a gap longer than is allowed', () => {
    const condition = { ...makeCondition(change({})), maxGapMs: 2 * MINUTE };
    expect(told(condition, seriesOf([0, 10 * MINUTE, 11 * MINUTE], [0, 90, 91]))).toEqual([]);
  });
});

describe('silence', () => {
  const silence = makeCondition({ kind: 'silence', forMs: 20 * MINUTE });

  it('is raised when the time is over though nothing comes, and returns with the next sample', () => {
    const series = seriesOf([NEWYEAR, NEWYEAR + 60 * MINUTE], [1, 2]);
    expect(told(silence, series, NEWYEAR + 85 * MINUTE)).toEqual(['raise 20', 'return 60', 'raise 80']);
    expect(told(silence, series, NEWYEAR + 80 * MINUTE)).toEqual(['raise 20', 'return 60']);
  });

  it('counts only the hours in which the rule watches', () => {
    const gated: AlarmCondition = { ...silence, hours: { kind: 'clock', from: '06:00', to: '22:00' } };
    const last = NEWYEAR + 21 * ONE_HOUR + 50 * MINUTE;
    const until = NEWYEAR + ONE_DAY + 7 * ONE_HOUR;
    expect(told(gated, seriesOf([last], [1]), until)).toEqual([`raise ${8 * 60 + 10 + 20}`]);
  });
});

describe('consumption in a calendar period', () => {
  const hourly = (limit: number, pace: boolean, reading: AlarmCondition['reading']): AlarmCondition =>
    makeCondition({ kind: 'consumption', limit, per: 'hour', pace }, { reading });

  it('adds amounts up and begins again with the next hour', () => {
    const series = minutely(Array(125).fill(1), NEWYEAR);
    expect(told(hourly(50, false, AMOUNT), series)).toEqual([
      'raise 50',
      'return 60',
      'raise 110',
      'return 120',
    ]);
  });

  it('counts what a register gained, over a reset too', () => {
    const series = minutely([100, 130, 140, 3, 20], NEWYEAR);
    // 30, 40, then it began again: 43, 60.
    expect(told(hourly(42, false, REGISTER), series)).toEqual(['raise 3']);
  });

  it('warns before the limit is reached, at the pace so far, once a tenth of the period is over', () => {
    const series = minutely([9, ...Array(30).fill(1), ...Array(20).fill(3)], NEWYEAR);
    // After 6 of 60 minutes 14 have been used: 140 an hour; after 12 they are 20: 100; after 40, 66: 99; after 41, 69: 101.
    expect(told(hourly(100, true, AMOUNT), series)).toEqual(['raise 5', 'return 11', 'raise 40']);
  });

  it('takes the months and years of the site', () => {
    const daily = seriesOf(
      Array.from({ length: 40 }, (_, i) => Date.UTC(2026, 2, 1) + i * ONE_DAY),
      Array(40).fill(10),
    );
    const monthly = makeCondition(
      { kind: 'consumption', limit: 300, per: 'month', pace: false },
      { reading: AMOUNT },
    );
    expect(told(monthly, daily).map((each) => each.split(' ')[0])).toEqual(['raise', 'return']);
    const changes = runCondition(monthly, daily).changes;
    expect(new Date(changes[0].t).toISOString().slice(0, 10)).toBe('2026-03-31');
    // Midnight UTC on 1 April is 01:00 in London's summer: already April.
    expect(new Date(changes[1].t).toISOString().slice(0, 10)).toBe('2026-04-01');
  });
});

describe('a state', () => {
  it('is looked for, or anything else is', () => {
    const codes = minutely([1, 0, 0, 2, 1]);
    const state = (code: number, is: boolean): AlarmCondition =>
      makeCondition({ kind: 'state', code, is }, { reading: STATE });
    expect(told(state(2, true), codes)).toEqual(['raise 3', 'return 4']);
    expect(told(state(1, false), codes)).toEqual(['raise 1', 'return 4']);
  });
});

describe('the usual for the hour of the week', () => {
  const weeks = 10;
  // 20 on working hours, 5 at night, with a little spread: the same each week.
  const past = seriesOf(
    Array.from({ length: weeks * 168 }, (_, i) => Date.UTC(2026, 0, 5) + i * ONE_HOUR),
    Array.from(
      { length: weeks * 168 },
      (_, i) => (i % 24 >= 6 && i % 24 < 22 ? 20 : 5) + (Math.floor(i / 168) % 2 ? 1 : -1),
    ),
  );
  const model = fitAlarmModel(
    { kind: 'baseline', side: 'above', limit: 3, deadband: 1 },
    past,
    { kind: 'level', maxGapMs: 2 * ONE_HOUR },
    'UTC',
  );
  const condition = makeCondition(
    { kind: 'baseline', side: 'above', limit: 3, deadband: 1 },
    { model, site: { ...makeCondition({ kind: 'silence', forMs: 1 }).site, zone: 'UTC' } },
  );

  it('counts hours from Monday midnight on the local clock', () => {
    expect(hourOfWeek(Date.UTC(2026, 0, 5), 'UTC')).toBe(0);
    expect(hourOfWeek(Date.UTC(2026, 0, 11, 23), 'UTC')).toBe(167);
    expect(hourOfWeek(Date.UTC(2026, 5, 1), 'Europe/London')).toBe(1);
  });

  it('finds by night what would be quite usual by day', () => {
    const night = Date.UTC(2026, 5, 1, 3);
    expect(told(condition, seriesOf([night, night + MINUTE, night + 2 * MINUTE], [20, 12, 6]))).toEqual([
      'raise 0',
      'return 2',
    ]);
    expect(told(condition, seriesOf([Date.UTC(2026, 5, 1, 12)], [20]))).toEqual([]);
  });

  it('finds nothing where it has learnt nothing', () => {
    expect(fitAlarmModel(condition.test, seriesOf([0], [1]), LEVEL, 'UTC')).toBeNull();
    expect(told({ ...condition, model: null }, minutely([1e9]))).toEqual([]);
  });
});

describe('a control chart of hours', () => {
  it('takes time-weighted means, and leaves out an hour with too little data', () => {
    const t = [0, 30, 60, 90, 120, 240, 270, 300].map((m) => NEWYEAR + m * MINUTE);
    const series = seriesOf(t, [10, 20, 30, 30, 40, 50, 50, 60]);
    const reading = { kind: 'level', maxGapMs: 30 * MINUTE } as const;
    // From 02:30 on nothing is known until 04:00: two hours have no point.
    expect(chartPoints(series, 'hour', reading, 'UTC')).toEqual([15, 30, NaN, NaN, 50]);
  });

  it('tells a drift that no limit would', () => {
    const condition = makeCondition(
      { kind: 'runRules', rules: [2], point: 'hour' },
      { model: { kind: 'chart', centre: 100, sigma: 4 }, maxGapMs: ONE_HOUR },
    );
    const drifted = seriesOf(
      Array.from({ length: 40 }, (_, i) => NEWYEAR + i * 30 * MINUTE),
      Array.from({ length: 40 }, (_, i) => (i < 10 ? (i % 4 < 2 ? 98 : 102) : 101.5)),
    );
    // Five quiet hours, nine above the centre: raised when the ninth is over.
    expect(told(condition, drifted)).toEqual([`raise ${14 * 60}`]);
  });
});

describe('words of a test', () => {
  it('say what it looks for in the unit of the metric', () => {
    expect(testWords({ kind: 'limit', side: 'above', limit: 205, deadband: 4 }, '°C', 0)).toBe(
      `above ${formatValue(205, '°C', 0)}`,
    );
    expect(testWords({ kind: 'silence', forMs: 20 * MINUTE }, '°C', 0)).toBe(
      `silent for ${formatLength(20 * MINUTE)}`,
    );
    expect(testWords({ kind: 'consumption', limit: 1200, per: 'day', pace: true }, 'kWh', 0)).toContain(
      'in the day',
    );
    expect(testWords({ kind: 'runRules', rules: [1, 5], point: 'hour' }, 'bar', 1)).toBe(
      'breaking run rules 1, 5',
    );
    expect(testWords({ kind: 'state', code: 1, is: false }, '', 0)).toBe('not running');
  });
});
