import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import { bucketSpans } from './bucketSpans';
import type { HoursFilter } from './hoursFilter';
import { resolveWindow } from './window';

const NOW = Date.UTC(2026, 10, 19);
const years = (from: number, to: number) => ({ start: Date.UTC(from, 0, 1), end: Date.UTC(to, 0, 1) });
const WEEKDAYS: HoursFilter = { kind: 'weekdays', days: [1, 2, 3, 4, 5] };
const cut = (
  from: number,
  to: number,
  bucket: Parameters<typeof bucketSpans>[1],
  hours: HoursFilter | null = null,
  calendar = DEFAULT_CALENDAR,
) => bucketSpans(years(from, to), bucket, hours, 'UTC', calendar);
const MANY_SHIFTS = {
  ...DEFAULT_CALENDAR,
  shifts: Array.from({ length: 40 }, (_, i) => ({
    name: `${i}`,
    days: [1, 2, 3, 4, 5, 6, 7],
    from: '06:00',
    to: '14:00',
  })),
};

describe('windows', () => {
  it.each([
    ['a typing slip', { kind: 'absolute', start: '0202-01-01', end: '2026-01-01' }],
    ['the far future', { kind: 'absolute', start: '2026-01-01', end: '9999-01-01' }],
    ['a thousand years back', { kind: 'rolling', count: 1000, unit: 'year' }],
  ] as const)('are refused in years the product does not know: %s', (_, spec) => {
    expect(() => resolveWindow(spec, NOW, 'Europe/London')).toThrow(/between the years 1500 and 2199/);
  });

  it('are refused before they are cut, if they have too many periods', () => {
    expect(() => cut(1500, 2199, 'hour')).toThrow(/about 6,1\d\d,\d\d\d periods; at most 40,000/);
    expect(() => cut(1600, 2000, 'day')).toThrow(/at most 40,000/);
    expect(() => cut(1600, 2000, 'week')).toThrow(/at most 4,000/);
    expect(() => cut(1600, 2000, 'shift', null, MANY_SHIFTS)).toThrow(/about 5,843,880 periods/);
    expect(() => cut(2025, Infinity, 'day')).toThrow(/beyond all years/);
    expect(cut(1930, 2030, 'day').size).toBe(36_525);
    expect(cut(1600, 2000, 'year').size).toBe(400);
  });

  it('are refused before their recurring hours are laid out, if those have too many pieces', () => {
    expect(() => cut(1600, 2000, null, WEEKDAYS)).toThrow(
      /about 146,097 pieces in this window; at most 20,000/,
    );
    const many: HoursFilter = { kind: 'any', of: Array.from({ length: 29 }, () => WEEKDAYS) };
    expect(() => cut(2020, 2024, 'day', many)).toThrow(/Choose a shorter window or fewer conditions/);
    expect(cut(2023, 2024, 'day', many).size).toBe(365);
    const working: HoursFilter = { kind: 'not', of: { kind: 'working', inside: true } };
    expect(() => cut(2020, 2024, 'day', working, MANY_SHIFTS)).toThrow(/about 59,901 pieces/);
    expect(cut(1980, 2024, 'day', { kind: 'clock', from: '22:00', to: '06:00' }).size).toBe(16_071);
  });
});
