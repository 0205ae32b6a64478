import fc from 'fast-check';
import moment from 'moment-timezone';
import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import { type WorkingCalendar } from '../schemas/calendar';
import { hoursInside, hoursWords } from './hours';
import { type HoursFilter } from './hoursFilter';
import { differenceOf, intersectionOf, lengthOf, unionOf } from './intervals';
import type { Interval } from './interval';

const HOUR = 3_600_000;
const MINUTE = 60_000;

describe('sets of intervals', () => {
  const any = fc.array(
    fc
      .tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 0, max: 20 }))
      .map(([start, n]) => ({ start, end: start + n })),
    { maxLength: 12 },
  );
  const points = (set: readonly Interval[]): Set<number> =>
    new Set(set.flatMap(({ start, end }) => Array.from({ length: end - start }, (_, i) => start + i)));

  it('agree with sets of moments', () => {
    fc.assert(
      fc.property(any, any, (a, b) => {
        const [ua, ub] = [unionOf(a), unionOf(b)];
        const [pa, pb] = [points(a), points(b)];
        expect(points(ua)).toEqual(pa);
        expect(lengthOf(a)).toBe(pa.size);
        expect(points(intersectionOf(ua, ub))).toEqual(new Set([...pa].filter((x) => pb.has(x))));
        expect(points(differenceOf(ua, ub))).toEqual(new Set([...pa].filter((x) => !pb.has(x))));
      }),
    );
  });
});

describe('hoursInside', () => {
  const window = { start: Date.UTC(2026, 2, 26), end: Date.UTC(2026, 3, 4) };
  const zone = 'Europe/London';
  const inside = (filter: HoursFilter, calendar: WorkingCalendar = DEFAULT_CALENDAR) =>
    hoursInside(filter, window, zone, calendar);

  it('agrees with the wall clock at every quarter of an hour, also over a clock change and midnight', () => {
    const filter: HoursFilter = {
      kind: 'any',
      of: [
        { kind: 'clock', from: '22:00', to: '06:00' },
        { kind: 'weekdays', days: [6, 7] },
      ],
    };
    const found = inside(filter);
    for (let t = window.start; t < window.end; t += 15 * MINUTE) {
      const local = moment.tz(t, zone);
      const expected = local.hour() >= 22 || local.hour() < 6 || local.isoWeekday() >= 6;
      expect(found.some(({ start, end }) => start <= t && t < end)).toBe(expected);
    }
  });

  it('is right to the minute in zones of 30 and 45 minutes', () => {
    const day = { start: Date.UTC(2026, 5, 1), end: Date.UTC(2026, 5, 2) };
    const clock: HoursFilter = { kind: 'clock', from: '06:10', to: '06:25' };
    const [kathmandu] = hoursInside(clock, day, 'Asia/Kathmandu', DEFAULT_CALENDAR);
    expect(kathmandu).toEqual({ start: Date.UTC(2026, 5, 1, 0, 25), end: Date.UTC(2026, 5, 1, 0, 40) });
    const [chatham] = hoursInside(clock, day, 'Pacific/Chatham', DEFAULT_CALENDAR);
    expect(chatham.start).toBe(moment.tz('2026-06-02 06:10', 'Pacific/Chatham').valueOf());
  });

  it('joins months, working time and shifts, and turns them round', () => {
    const calendar: WorkingCalendar = {
      ...DEFAULT_CALENDAR,
      shifts: [
        { name: 'Night', days: [1, 2, 3, 4, 5], from: '22:00', to: '06:00' },
        { name: 'Day', days: [1, 2, 3, 4, 5], from: '06:00', to: '14:00' },
      ],
      holidays: [{ date: '2026-04-03', name: 'Good Friday' }],
    };
    const april = inside({ kind: 'months', months: [4] });
    expect(april).toEqual([{ start: Date.UTC(2026, 2, 31, 23), end: window.end }]);
    const working = inside({ kind: 'working', inside: true }, calendar);
    const idle = inside({ kind: 'working', inside: false }, calendar);
    expect(lengthOf(working) + lengthOf(idle)).toBe(window.end - window.start);
    expect(intersectionOf(working, idle)).toEqual([]);
    const night = inside({ kind: 'shift', name: 'Night' }, calendar);
    // The night shift that began on Thursday evening ends on the holiday; none begins on it.
    expect(night[night.length - 1].end).toBe(Date.UTC(2026, 3, 3, 5));
    expect(lengthOf(inside({ kind: 'not', of: { kind: 'working', inside: true } }, calendar))).toBe(
      lengthOf(idle),
    );
    const both: HoursFilter = {
      kind: 'all',
      of: [
        { kind: 'working', inside: true },
        { kind: 'weekdays', days: [1] },
      ],
    };
    // Monday 30 March: night until 06:00 does not count (no shift began on Sunday), 06:00 to 14:00, 22:00 to 24:00.
    expect(lengthOf(inside(both, calendar)) / HOUR).toBe(10);
  });

  it('says what it lets through', () => {
    expect(
      hoursWords({
        kind: 'any',
        of: [
          { kind: 'clock', from: '22:00', to: '06:00' },
          { kind: 'weekdays', days: [6, 7] },
        ],
      }),
    ).toBe('22:00 to 06:00 or on Saturdays, Sundays');
    expect(hoursWords({ kind: 'not', of: { kind: 'working', inside: true } })).toBe('not in working hours');
  });
});
