import fc from 'fast-check';
import { degreeDaysOfDay } from './degreeDays';

const day = (min: number, max: number) => ({ mean: (min + max) / 2, min, max });

describe('degreeDaysOfDay', () => {
  it('follows the four cases of the Met Office equations (CIBSE TM41:2006, table 2.1, from memory)', () => {
    const heating = (min: number, max: number): number =>
      degreeDaysOfDay(day(min, max), 15.5, 'heating', 'minMax');
    expect(heating(2, 10)).toBeCloseTo(15.5 - 6, 12); // below all day
    expect(heating(10, 17)).toBeCloseTo((15.5 - 10) / 2 - (17 - 15.5) / 4, 12); // mostly below
    expect(heating(14, 20)).toBeCloseTo((15.5 - 14) / 4, 12); // mostly above
    expect(heating(16, 25)).toBe(0);
  });

  it('takes the difference of the daily mean (ASHRAE Fundamentals, climatic design information, from memory)', () => {
    expect(degreeDaysOfDay(day(5, 15), 18, 'heating', 'mean')).toBe(8);
    expect(degreeDaysOfDay(day(20, 30), 18, 'cooling', 'mean')).toBe(7);
  });

  it('is never negative, never falls with the base, and mirrors heating and cooling', () => {
    const t = fc.double({ min: -30, max: 45, noNaN: true });
    fc.assert(
      fc.property(t, t, t, fc.constantFrom('mean', 'minMax'), (a, b, base, method) => {
        const one = day(Math.min(a, b), Math.max(a, b));
        const heating = degreeDaysOfDay(one, base, 'heating', method);
        expect(heating).toBeGreaterThanOrEqual(0);
        expect(degreeDaysOfDay(one, base + 1, 'heating', method)).toBeGreaterThanOrEqual(heating - 1e-9);
        const mirrored = { mean: -one.mean, min: -one.max, max: -one.min };
        expect(degreeDaysOfDay(mirrored, -base, 'cooling', method)).toBeCloseTo(heating, 9);
      }),
    );
  });
});
