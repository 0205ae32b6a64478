import fc from 'fast-check';
import { normalised, perAttribute } from './normalise';
import { runningTotal } from './runningTotal';
import { sinceStart, sinceWords, startOfAttribute } from './sinceStart';

const DAY = 86_400_000;
const HOUR = 3_600_000;

describe('runningTotal', () => {
  it('adds up; a missing value adds nothing and stays missing', () => {
    expect(runningTotal([1, null, 2, 3])).toEqual([1, null, 3, 6]);
  });
});

describe('normalised', () => {
  it('by the first value is percent of the first known one', () => {
    expect(normalised([null, 50, 75, null, 25], 'kW', { by: 'first' }, {})).toEqual({
      v: [null, 100, 150, null, 50],
      unit: '% of the first',
    });
  });

  it.each([[[null]], [[0, 5]], [[-2, 5]], [[]]])('has no percent of %j', (v) => {
    expect(normalised(v, 'kW', { by: 'first' }, {})).toBeNull();
  });

  it('by an attribute divides by it, and tells the unit', () => {
    const by = { by: 'attribute' as const, name: 'Floor area (m²)' };
    expect(normalised([8400, null], 'kWh', by, { 'Floor area (m²)': 4200 })).toEqual({
      v: [2, null],
      unit: 'kWh/m²',
    });
    // A number that came in as text is a number.
    expect(normalised([10], 'kg', { by: 'attribute', name: 'Beds' }, { Beds: '4' })?.v).toEqual([2.5]);
    for (const attributes of [{}, { 'Floor area (m²)': 0 }, { 'Floor area (m²)': 'large' }])
      expect(normalised([1], 'kWh', by, attributes as never)).toBeNull();
  });

  it.each([
    ['kWh', 'Floor area (m²)', 'kWh/m²'],
    ['kg', 'Rated output (kg/h)', 'kg/(kg/h)'],
    ['', 'Floor area (m²)', '1/m²'],
    ['kWh', 'Beds', 'kWh per Beds'],
    ['', 'Beds', 'per Beds'],
  ])('unit of %s per %s is %s', (unit, name, expected) => {
    expect(perAttribute(unit, name)).toBe(expected);
  });

  it('keeps the proportions of any values', () => {
    const positive = fc.double({ min: 1e-3, max: 1e6, noNaN: true });
    fc.assert(
      fc.property(fc.array(positive, { minLength: 1 }), (v) => {
        const made = normalised(v, '', { by: 'first' }, {})!;
        made.v.forEach((value, i) =>
          expect((value! / 100) * v[0]).toBeCloseTo(v[i], 6 - Math.log10(v[i] + 1)),
        );
      }),
    );
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
