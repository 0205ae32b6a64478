import fc from 'fast-check';
import { unitPerAttribute } from '../domain/metric';
import { inPercentOfFirst } from './normalise';
import { runningTotal } from './runningTotal';
import { sinceStart, sinceWords, startOfAttribute } from './sinceStart';

const DAY = 86_400_000;
const HOUR = 3_600_000;

describe('runningTotal', () => {
  it('adds up; a missing value adds nothing and stays missing', () => {
    expect(runningTotal([1, null, 2, 3])).toEqual([1, null, 3, 6]);
  });
});

describe('in percent of the first value', () => {
  it('takes the first known one', () => {
    expect(inPercentOfFirst([null, 50, 75, null, 25])).toEqual([null, 100, 150, null, 50]);
  });

  it.each([[[null]], [[0, 5]], [[-2, 5]], [[]]])('is nothing for %j', (v) => {
    expect(inPercentOfFirst(v)).toBeNull();
  });

  it('keeps the proportions of any values', () => {
    const positive = fc.double({ min: 1e-3, max: 1e6, noNaN: true });
    fc.assert(
      fc.property(fc.array(positive, { minLength: 1 }), (v) => {
        inPercentOfFirst(v)!.forEach((value, i) =>
          expect((value! / 100) * v[0]).toBeCloseTo(v[i], 6 - Math.log10(v[i] + 1)),
        );
      }),
    );
  });
});

describe('a unit per an attribute', () => {
  it.each([
    ['kWh', 'Floor area (m²)', 'kWh/m²'],
    ['kg', 'Rated output (kg/h)', 'kg/(kg/h)'],
    ['', 'Floor area (m²)', '1/m²'],
    ['kWh', 'Beds', 'kWh per Beds'],
    ['', 'Beds', 'per Beds'],
  ])('of %s per %s is %s', (unit, name, expected) => {
    expect(unitPerAttribute(unit, name)).toBe(expected);
  });
});

describe('time since a start event', () => {
  it('begins on the wall clock of the site', () => {
    expect(startOfAttribute('2026-07-01', 'Europe/London')).toBe(Date.UTC(2026, 5, 30, 23));
    expect(startOfAttribute(' 2026-01-05 06:30 ', 'Europe/London')).toBe(Date.UTC(2026, 0, 5, 6, 30));
    for (const text of ['soon', '2026', '05/01/2026', '2026-13-01', 7, undefined])
      expect(startOfAttribute(text, 'UTC')).toBeNull();
  });

  it('is told in days and hours', () => {
    expect([0, 3 * DAY, 3 * DAY + 4.5 * HOUR, -DAY].map(sinceWords)).toEqual([
      'day 0',
      'day 3',
      'day 3, 04:30',
      'day -1',
    ]);
  });

  it('shifts every time of a trend alike', () => {
    const answer = {
      window: { start: 1000, end: 3000 },
      zone: 'Europe/London',
      unit: 'kW',
      now: 2500,
      t: [1000, 2000],
      v: [1, null],
      bucket: 'hour' as const,
      until: [2000, 3000],
      gaps: [{ start: 2000, end: 2500 }],
      samples: 1,
    };
    expect(sinceStart(answer, 1000)).toEqual({
      ...answer,
      zone: 'UTC',
      now: 1500,
      window: { start: 0, end: 2000 },
      t: [0, 1000],
      until: [1000, 2000],
      gaps: [{ start: 1000, end: 1500 }],
    });
    expect(sinceStart({ ...answer, bucket: null, until: null }, 0).until).toBeNull();
  });
});
