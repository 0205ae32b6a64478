import fc from 'fast-check';
import { DateTime } from 'luxon';
import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import { bucketSpans, withEarlier, type BucketSpans } from './bucketSpans';
import { foldedBuckets, passedHours, workingShares } from './foldedBuckets';
import { COLUMNS_OF_FOLD, FOLDS, PERIOD_OF_FOLD, type Fold } from './folds';
import type { HoursFilter } from './hoursFilter';
import type { Interval } from './interval';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const LONDON = 'Europe/London';

const folded = (fold: Fold, window: Interval, zone = LONDON, hours: HoursFilter | null = null): BucketSpans =>
  foldedBuckets(bucketSpans(window, PERIOD_OF_FOLD[fold], hours, zone, DEFAULT_CALENDAR), fold);

/** The spans of one cell. */
const inCell = ({ spans }: BucketSpans, cell: number): Interval[] =>
  Array.from(spans.into, (into, i) => ({ into, start: spans.start[i], end: spans.end[i] }))
    .filter(({ into }) => into === cell)
    .map(({ start, end }) => ({ start, end }));

const at = (iso: string, zone = LONDON): number => DateTime.fromISO(iso, { zone }).toMillis();

describe('a grid of hours and days that come again', () => {
  it('puts every period where the local clock and calendar of luxon have it', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FOLDS),
        fc.constantFrom(LONDON, 'Asia/Kolkata', 'America/Santiago', 'Pacific/Auckland', 'UTC'),
        fc.integer({ min: at('2024-01-01'), max: at('2026-06-01') }),
        fc.integer({ min: 1, max: 75 }),
        (fold, zone, from, days) => {
          const window = { start: from, end: from + days * DAY };
          const grid = folded(fold, window, zone);
          const columns = COLUMNS_OF_FOLD[fold];
          const first = DateTime.fromMillis(grid.spans.start[0], { zone });
          for (let i = 0; i < grid.spans.start.length; i++) {
            const local = DateTime.fromMillis(grid.spans.start[i], { zone });
            const dates = local.startOf('day').diff(first.startOf('day'), 'days').days;
            const months = (local.year - first.year) * 12 + local.month - first.month;
            const [row, column] = {
              hourOfWeek: [local.weekday - 1, local.hour],
              hourOfDay: [0, local.hour],
              hourOfDate: [Math.round(dates), local.hour],
              dayOfMonth: [months, local.day - 1],
            }[fold];
            expect(grid.spans.into[i]).toBe(row * columns + column);
          }
          expect(grid.size % columns).toBe(0);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('holds both hours from 01:00 on the day the clock is set back, and none on the day it is set forward', () => {
    const autumn = folded('hourOfDate', { start: at('2026-10-25'), end: at('2026-10-26') });
    expect(inCell(autumn, 1)).toHaveLength(2);
    expect([autumn.start[1], autumn.end[1]]).toEqual(
      [at('2026-10-25'), at('2026-10-25T02:00')].map((t, i) => t + (i === 0 ? HOUR : 0)),
    );
    const spring = folded('hourOfDate', { start: at('2026-03-29'), end: at('2026-03-30') });
    expect(inCell(spring, 1)).toEqual([]);
    expect(spring.end[1]).toBe(spring.start[1]);
    expect(inCell(spring, 2)).toHaveLength(1);
  });

  it('says how many hours of each cell have passed, and how much of it is working time', () => {
    // Thursday 19 November 2026, 12:20: two weeks back, only the last Thursday noon is unfinished.
    const now = at('2026-11-19T12:20');
    const grid = folded('hourOfWeek', { start: at('2026-11-06'), end: at('2026-11-20') });
    const cell = (weekday: number, hour: number): number => (weekday - 1) * 24 + hour;
    const passed = passedHours(grid, now);
    expect([cell(4, 11), cell(4, 12), cell(4, 13)].map((i) => passed[i])).toEqual([2, 1 + 20 / 60, 1]);
    const calendar = {
      ...DEFAULT_CALENDAR,
      shifts: [{ name: 'Early', days: [1, 2, 3, 4, 5], from: '06:30', to: '14:00' }],
    };
    const working = workingShares({ ...grid, calendar });
    expect([cell(1, 5), cell(1, 6), cell(1, 7), cell(6, 7)].map((i) => working[i])).toEqual([0, 0.5, 1, 0]);
  });

  it('keeps only the recurring hours', () => {
    const hours: HoursFilter = { kind: 'clock', from: '06:10', to: '06:40' };
    const grid = folded('hourOfDay', { start: at('2026-11-01'), end: at('2026-11-11') }, LONDON, hours);
    const passed = passedHours(grid, at('2027-01-01'));
    expect(passed[6]).toBeCloseTo(5, 9);
    expect(passed.filter((each) => each > 0)).toHaveLength(1);
  });

  it('refuses to look back from cells that do not follow one another', () => {
    const grid = folded('hourOfWeek', { start: at('2026-11-01'), end: at('2026-11-11') });
    expect(() => withEarlier(grid, 1)).toThrow(/looks back/);
  });
});
