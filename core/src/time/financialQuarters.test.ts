import fc from 'fast-check';
import { plusPeriods, startOfPeriod } from './periodStart';

const rules = (financialYearMonth: number) => ({ firstWeekday: 1, financialYearMonth });
const startOf = (t: number, month: number): string =>
  new Date(startOfPeriod(t, 'financialQuarter', 'UTC', rules(month))).toISOString().slice(0, 10);

describe('financial quarters', () => {
  it.each([
    // In the United Kingdom companies often close on 31 March, the United States government on 30 September.
    [4, '2026-11-19', '2026-10-01'],
    [10, '2026-11-19', '2026-10-01'],
    [2, '2026-11-19', '2026-11-01'],
    [2, '2027-01-31', '2026-11-01'],
    [3, '2026-01-15', '2025-12-01'],
    [6, '2026-05-31', '2026-03-01'],
    [1, '2026-05-31', '2026-04-01'],
  ])('of a year from month %s on: %s lies in the one from %s on', (month, date, start) => {
    expect(startOf(Date.parse(date), month)).toBe(start);
  });

  it('four make the financial year, whatever month it begins in', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 0, max: 4000 }), (month, days) => {
        const t = Date.UTC(2020, 0, 1) + days * 86_400_000;
        const year = startOfPeriod(t, 'financialYear', 'UTC', rules(month));
        const quarters = [0, 1, 2, 3].map((n) => plusPeriods(year, n, 'financialQuarter', 'UTC'));
        expect(quarters).toContain(startOfPeriod(t, 'financialQuarter', 'UTC', rules(month)));
        expect(plusPeriods(quarters[3], 1, 'financialQuarter', 'UTC')).toBe(
          plusPeriods(year, 1, 'financialYear', 'UTC'),
        );
      }),
    );
  });
});
