import fc from 'fast-check';
import { DateTime } from 'luxon';
import { levelOf } from '../bands/targetBand';
import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import { indicatorSchema } from './definition';
import { bandOfJudge } from './bandOfTarget';
import { versionAt, type IndicatorVersion, type Judge } from './definition';
import { suggestTargets } from './suggestTargets';
import { addsUp } from '../domain/measure';
import { changeOf, targetOfWindow, wrongMonths } from './targetOfWindow';

const DAY = 86_400_000;
const LONDON = { zone: 'Europe/London', calendar: DEFAULT_CALENDAR };
const shares = (direction: 'higher' | 'lower' | 'inside', clear = 95, caution = 85): Judge => ({
  kind: 'target',
  direction,
  clear,
  caution,
});

describe('a band in percent of the target', () => {
  it('is Caution from 85 % and Clear from 95 % of it, a value on the threshold being the better', () => {
    const band = bandOfJudge(shares('higher'), 200)!;
    expect(band).toMatchObject({ caution: 190, breach: 170, target: 200 });
    expect([189.9, 190, 170, 169.9].map((v) => levelOf(band, v))).toEqual([
      'caution',
      'clear',
      'caution',
      'breach',
    ]);
  });

  it('where lower is better allows as much above it', () => {
    expect(bandOfJudge(shares('lower'), 200)).toMatchObject({ caution: 210, breach: 230 });
  });

  it('of a negative target asks for its bad side, not for an easier one', () => {
    expect(bandOfJudge(shares('higher'), -100)).toMatchObject({ caution: -105, breach: -115 });
    expect(bandOfJudge(shares('lower'), -100)).toMatchObject({ caution: -95, breach: -85 });
  });

  it('of a target of zero is reached or not', () => {
    const band = bandOfJudge(shares('lower'), 0)!;
    expect([0, -1, 0.001].map((v) => levelOf(band, v))).toEqual(['clear', 'clear', 'breach']);
  });

  it('with equal shares has two levels, and 100 % is a single target', () => {
    const band = bandOfJudge(shares('higher', 100, 100), 8.5)!;
    expect([8.5, 8.4999].map((v) => levelOf(band, v))).toEqual(['clear', 'breach']);
  });

  it('inside is as far on either side, and there is none without a target', () => {
    expect(bandOfJudge(shares('inside', 95, 90), 20)).toMatchObject({
      breachLow: 18,
      clearLow: 19,
      clearHigh: 21,
      breachHigh: 22,
    });
    expect(bandOfJudge(shares('higher'), null)).toBeNull();
  });

  it('keeps limits in units, with the target that holds', () => {
    const band = { direction: 'lower', caution: 3, breach: 4, target: 2 } as const;
    expect(bandOfJudge({ kind: 'limits', band }, null)).toEqual(band);
    expect(bandOfJudge({ kind: 'limits', band }, 2.5)).toEqual({ ...band, target: 2.5 });
  });

  it('never gives a worse level to a better value, whatever the target', () => {
    const order = { breach: 0, caution: 1, clear: 2, nodata: -1 };
    fc.assert(
      fc.property(
        fc.constantFrom('higher' as const, 'lower' as const),
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.double({ min: -2e6, max: 2e6, noNaN: true }),
        fc.double({ min: 0, max: 1e6, noNaN: true }),
        (direction, target, value, more) => {
          const band = bandOfJudge(shares(direction), target)!;
          const better = direction === 'higher' ? value + more : value - more;
          expect(order[levelOf(band, better)]).toBeGreaterThanOrEqual(order[levelOf(band, value)]);
          expect(levelOf(band, target)).toBe('clear');
        },
      ),
    );
  });
});

describe('targets typed in by period', () => {
  const months = [
    { start: '2026-10-01', value: 310, month: false },
    { start: '2026-11-01', value: 300, month: false },
    { start: '2026-12-01', value: 620, month: false },
  ];
  const at = (date: string): number => DateTime.fromISO(date, { zone: 'Europe/London' }).toMillis();
  const window = (from: string, to: string) => ({ start: at(from), end: at(to) });
  const of = (from: string, to: string, adds = true, prorate: 'calendar' | 'working' | 'none' = 'calendar') =>
    targetOfWindow(months, 'month', window(from, to), adds, prorate, LONDON);

  it('of a total have the part that lies in the window', () => {
    expect(of('2026-11-01', '2026-12-01')).toBeCloseTo(300, 9);
    expect(of('2026-11-01', '2026-11-16')).toBeCloseTo(150, 9);
    expect(of('2026-11-16', '2026-12-02')).toBeCloseTo(150 + 20, 9);
    expect(of('2026-10-01', '2027-01-01')).toBeCloseTo(1230, 9);
  });

  it('hold whole where they are not prorated', () => {
    expect(of('2026-11-01', '2026-11-02', true, 'none')).toBe(300);
  });

  it('follow working time where they shall: nothing is to be reached on a free day', () => {
    const calendar = {
      ...DEFAULT_CALENDAR,
      shifts: [{ name: 'Day', days: [1, 2, 3, 4, 5], from: '06:00', to: '14:00' }],
      holidays: [{ date: '2026-11-04', name: 'Closed' }],
    };
    const site = { ...LONDON, calendar };
    const target = (from: string, to: string) =>
      targetOfWindow(months, 'month', window(from, to), true, 'working', site)!;
    // November 2026 has 21 weekdays; one is closed. The first is a Sunday.
    expect(target('2026-11-01', '2026-11-02')).toBe(0);
    expect(target('2026-11-01', '2026-11-03')).toBeCloseTo(300 / 20, 9);
    expect(target('2026-11-03', '2026-11-05')).toBeCloseTo(300 / 20, 9);
    expect(target('2026-11-01', '2026-12-01')).toBeCloseTo(300, 9);
  });

  it('of a mean or a ratio hold as they are, weighted where the window has parts of several', () => {
    expect(of('2026-11-01', '2026-11-16', false)).toBe(300);
    expect(of('2026-11-30', '2026-12-02', false)).toBeCloseTo(460, 9);
  });

  it('are none where a part of the window has none', () => {
    expect(of('2026-09-30', '2026-10-02')).toBeNull();
    expect(of('2026-12-15', '2027-01-02')).toBeNull();
  });

  it('add up: the parts of a window have the target of the whole', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 91 }),
        fc.integer({ min: 0, max: 91 }),
        fc.integer({ min: 0, max: 91 }),
        (a, b, c) => {
          const [first, middle, last] = [a, b, c].sort((x, y) => x - y);
          if (first === middle || middle === last) return;
          const start = at('2026-10-01');
          const part = (from: number, to: number): number =>
            targetOfWindow(
              months,
              'month',
              { start: start + from * DAY, end: start + to * DAY },
              true,
              'calendar',
              LONDON,
            )!;
          expect(part(first, middle) + part(middle, last)).toBeCloseTo(part(first, last), 6);
        },
      ),
    );
  });

  const year = [
    { start: '2026-01-01', value: 1200, month: false },
    { start: '2026-08-01', value: 40, month: true },
    { start: '2026-12-01', value: 60, month: true },
  ];
  const ofYear = (from: string, to: string, adds = true, prorate: 'calendar' | 'none' = 'calendar') =>
    targetOfWindow(year, 'year', window(from, to), adds, prorate, LONDON);

  it('of a year with single months set otherwise keep the year whole', () => {
    expect(ofYear('2026-01-01', '2027-01-01')).toBeCloseTo(1200, 9);
    expect(ofYear('2026-08-01', '2026-09-01')).toBeCloseTo(40, 9);
    expect(ofYear('2026-12-01', '2026-12-16')).toBeCloseTo((60 * 15) / 31, 9);
    // The other 303 days share what is left: 1100.
    expect(ofYear('2026-01-01', '2026-02-01')).toBeCloseTo((1100 * 31) / 303, 1);
    expect(ofYear('2026-08-01', '2026-08-02', true, 'none')).toBe(40);
  });

  it('of a mean have another target in the months that are set', () => {
    expect(ofYear('2026-08-01', '2026-09-01', false)).toBe(40);
    expect(ofYear('2026-07-01', '2026-08-01', false)).toBe(1200);
  });

  it('are refused where the months come to more than the year', () => {
    expect(wrongMonths(year, 'year', 'Europe/London')).toBeNull();
    const more = [...year, { start: '2026-03-01', value: 1101, month: true }];
    expect(wrongMonths(more, 'year', 'Europe/London')).toEqual({
      start: '2026-01-01',
      months: 1201,
      whole: 1200,
    });
    expect(wrongMonths(more, 'month', 'Europe/London')).toBeNull();
  });

  it('a measure adds up when it is a total, not when it is a ratio or a mean', () => {
    const measure = { metricId: '1', summary: 'sum', per: null } as const;
    expect(addsUp(measure)).toBe(true);
    expect(addsUp({ ...measure, summary: 'mean' })).toBe(false);
    expect(addsUp({ ...measure, per: { metricId: '2', summary: 'sum', factor: 1, unit: null } })).toBe(false);
  });
});

describe('a change against a reference', () => {
  it('is in percent of the size of the base, and of zero there is no percentage', () => {
    expect(changeOf(110, 100)).toEqual({ by: 10, percent: 10 });
    expect(changeOf(-90, -100)).toEqual({ by: 10, percent: 10 });
    expect(changeOf(5, -10)).toEqual({ by: 15, percent: null });
    expect(changeOf(0, -10)).toEqual({ by: 10, percent: 100 });
    expect(changeOf(5, 0)).toEqual({ by: 5, percent: null });
    expect(changeOf(null, 100)).toBeNull();
    expect(changeOf(5, null)).toBeNull();
  });
});

describe('targets that the past suggests', () => {
  const past = [10, 12, 11, 8, 7, 8, 7, 14, 13, 12].map((value, i) => ({
    start: i * DAY,
    end: (i + 1) * DAY,
    value,
  }));

  it('are the median, the better quarter and the best four in a row, with where they come from', () => {
    const [median, quarter, best] = suggestTargets(past, 'lower');
    expect(median).toMatchObject({ kind: 'median', value: 10.5, values: 10 });
    expect(quarter.value).toBeCloseTo(8, 9);
    expect(best).toMatchObject({ kind: 'bestSustained', value: 7.5, from: 3 * DAY, to: 7 * DAY });
    expect(suggestTargets(past, 'higher')[2].value).toBeCloseTo((7 + 14 + 13 + 12) / 4, 9);
  });

  it('do not run over a gap, and are none from too little', () => {
    const gap = past.map((each, i) => (i === 5 ? { ...each, value: null } : each));
    expect(suggestTargets(gap, 'lower')[2]).toMatchObject({ from: DAY, to: 5 * DAY });
    expect(suggestTargets(past.slice(0, 7), 'lower')).toEqual([]);
    expect(suggestTargets(past, 'inside')).toEqual([]);
  });
});

describe('definitions over time', () => {
  const version = (n: number, validFrom: number): IndicatorVersion =>
    ({ version: n, validFrom, by: 'x', definition: {} }) as IndicatorVersion;

  it('judge by the one in force then, and before the first by the first', () => {
    const versions = [version(1, 100), version(3, 300), version(2, 200)];
    expect([50, 100, 250, 300, 999].map((t) => versionAt(versions, t).version)).toEqual([1, 1, 2, 3, 3]);
  });
});

describe('an indicator as it is written', () => {
  const definition = {
    name: 'Rewash share',
    assetId: '1',
    measure: { metricId: '1', summary: 'mean' },
    window: { kind: 'rolling', count: 1, unit: 'hour' },
    judge: { kind: 'target', direction: 'lower', clear: 95, caution: 85 },
    target: { kind: 'fixed', value: 2.5 },
    reference: { kind: 'before' },
    decimals: 1,
  };

  it('is filled up with what was left open', async () => {
    await expect(indicatorSchema.validate(definition)).resolves.toMatchObject({
      description: '',
      ownerId: null,
      hours: null,
      display: 'units',
      boardId: null,
      judge: { kind: 'target', direction: 'lower', clear: 95, caution: 85 },
    });
  });

  it.each([
    ['shares without a target', { target: { kind: 'none' } }, 'need a target'],
    ['Caution after Clear', { judge: { ...definition.judge, caution: 99 } }, 'at or before'],
    ['a fixed target without a value', { target: { kind: 'fixed' } }, 'Give the target'],
    ['no name', { name: ' ' }, 'Give it a name'],
  ])('is refused with %s', async (_, part, words) => {
    await expect(indicatorSchema.validate({ ...definition, ...part })).rejects.toThrow(words);
  });
});
