import { IANAZone } from 'luxon';
import moment from 'moment-timezone';
import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import { targetOfWindow } from '../indicators/targetOfWindow';
import { bucketSpans } from './bucketSpans';
import { DAY_MS, HOUR_MS } from './lengths';
import { plusPeriods, startOfPeriod } from './periodStart';
import { previousWindow, yearBefore } from './previousWindow';
import { resolveWindow } from './window';
import { zoneClock } from './zoneClock';

/*
 * Every zone and every transition from 2000 to 2037 in the tz database, through the copy of the data in
 * moment-timezone: where days begin is worked out from its table of transitions alone.
 */

const FROM = Date.UTC(2000, 0, 1);
const UNTIL = Date.UTC(2038, 0, 1);

/** Stretches of one offset: from `start` on, `offset` ms ahead of UTC. */
interface Stretch {
  readonly start: number;
  readonly offset: number;
}

function stretchesOf(zone: string): Stretch[] {
  const { untils, offsets } = moment.tz.zone(zone)!;
  return offsets.map((minutes, i) => ({
    start: i === 0 ? -Infinity : untils[i - 1]!,
    offset: -minutes * 60_000,
  }));
}

/** The first instant whose local date is `day` or later: midnight, or a transition that leaps over it. */
function startOfDay(stretches: readonly Stretch[], day: number): number {
  return Math.min(
    ...stretches.map(({ start, offset }, i) => {
      const end = stretches[i + 1]?.start ?? Infinity;
      const first = Math.max(start, day - offset);
      return first < end ? first : Infinity;
    }),
  );
}

/** Zones with their changes of offset; of those that are alike since 2000 one stands for all. */
const ALIKE = new Map<string, string>();
for (const zone of moment.tz.names().filter((each) => IANAZone.isValidZone(each)))
  ALIKE.set(JSON.stringify(stretchesOf(zone).filter(({ start }) => start >= FROM)), zone);
const ZONES = [...ALIKE.values()].map((zone) => {
  const stretches = stretchesOf(zone);
  const changes = stretches.slice(1).flatMap(({ start, offset }, i) => {
    if (start < FROM || start >= UNTIL || stretches[i].offset === offset) return [];
    const near = stretches.filter((each) => Math.abs(each.start - start) < 60 * DAY_MS);
    return [
      {
        at: start,
        near: [...stretches.slice(Math.max(0, i - 1), i + 1), ...near].sort((a, b) => a.start - b.start),
      },
    ];
  });
  return { zone, changes };
});

/** Whether the platform has the same offsets for a while around a change: its copy may be of another year. */
function agree(zone: string, { at, near }: { at: number; near: readonly Stretch[] }): boolean {
  const own = IANAZone.create(zone);
  return [-32 * DAY_MS, -2 * DAY_MS, -1, 0, 2 * DAY_MS, 32 * DAY_MS].every((far) => {
    const t = at + far;
    const { offset } = near.findLast(({ start }) => start <= t) ?? near[0];
    return own.offset(t) * 60_000 === offset;
  });
}

const CHANGES = ZONES.flatMap(({ zone, changes }) =>
  changes.filter((change) => agree(zone, change)).map((change) => ({ zone, ...change })),
);

it('looks at nearly all changes of the tz database', () => {
  const all = ZONES.reduce((n, { changes }) => n + changes.length, 0);
  expect(ZONES.length).toBeGreaterThan(150);
  expect(CHANGES.length).toBeGreaterThan(0.95 * all);
});

it('begins local days at their first instant, around every change of every zone', () => {
  for (const { zone, at, near } of CHANGES) {
    const clock = zoneClock(zone);
    const today = clock.dayAt(at);
    for (const day of [today - DAY_MS, today, today + DAY_MS, today + 2 * DAY_MS]) {
      const start = startOfDay(near, day);
      if (clock.startOfDay(day) !== start)
        throw new Error(`${zone} ${new Date(day).toISOString()} begins wrongly`);
    }
    for (const t of [at - HOUR_MS, at - 1, at, at + 1, at + HOUR_MS]) {
      const day = clock.dayAt(t);
      if (!(startOfDay(near, day) <= t && t < startOfDay(near, day + DAY_MS)))
        throw new Error(`${zone} ${new Date(t).toISOString()} is put on another day`);
    }
  }
});

it('makes windows, buckets, targets and windows before of the same days', () => {
  const fail = (zone: string, at: number, what: string): never => {
    throw new Error(`${zone} ${new Date(at).toISOString()}: ${what}`);
  };
  for (const { zone, at } of CHANGES) {
    const now = at + HOUR_MS;
    const days = { kind: 'periods', count: 3, unit: 'day', current: true } as const;
    const window = resolveWindow(days, now, zone);
    const before = previousWindow({ kind: 'periods', count: 3, unit: 'day', current: false }, now, zone);
    const { start, end } = bucketSpans(window, 'day', null, zone, DEFAULT_CALENDAR);
    if (start[0] !== window.start || end[end.length - 1] !== window.end || start.length !== 3)
      fail(zone, at, 'the buckets of three days are not the window');
    const yesterday = startOfPeriod(start[1] - 1, 'day', zone);
    if (yesterday !== start[0] || plusPeriods(start[2], -2, 'day', zone) !== start[0])
      fail(zone, at, 'the day before is another one');
    if (before.end !== resolveWindow({ ...days, current: false }, now, zone).start)
      fail(zone, at, 'the window before does not end where the window begins');
    const hours = bucketSpans(window, 'hour', null, zone, DEFAULT_CALENDAR);
    if (hours.start[0] !== window.start || hours.end[hours.size - 1] !== window.end)
      fail(zone, at, 'the hours do not fill the days');
    if (plusPeriods(window.start, hours.size, 'hour', zone) !== window.end)
      fail(zone, at, 'hours counted forward do not reach the end');
    if (plusPeriods(window.end, -hours.size, 'hour', zone) !== window.start)
      fail(zone, at, 'hours counted back do not reach the start');
    const targets = start.map((t) => ({
      start: new Date(zoneClock(zone).dayAt(t)).toISOString().slice(0, 10),
      value: 10,
      month: false,
    }));
    const site = { zone, calendar: DEFAULT_CALENDAR };
    const target = targetOfWindow(targets, 'day', window, true, 'calendar', site);
    if (target === null || Math.abs(target - 30) > 1e-9)
      fail(zone, at, `three days have the target ${target}`);
    const lastYear = yearBefore({ start: start[1], end: end[1] }, zone);
    if (startOfPeriod(lastYear.start, 'day', zone) !== lastYear.start || !(lastYear.end > lastYear.start))
      fail(zone, at, 'a year before is no day');
  }
});

/* Hand-worked around 29 February 2028. */
describe('a year before', () => {
  const utc = (month: number, day: number, hour = 0, year = 2028): number =>
    Date.UTC(year, month - 1, day, hour);
  it.each([
    ['29 February', utc(2, 29), utc(3, 1), utc(2, 28, 0, 2027), utc(3, 1, 0, 2027)],
    ['28 February', utc(2, 28), utc(2, 29), utc(2, 28, 0, 2027), utc(3, 1, 0, 2027)],
    ['1 March', utc(3, 1), utc(3, 2), utc(3, 1, 0, 2027), utc(3, 2, 0, 2027)],
    ['all of February', utc(2, 1), utc(3, 1), utc(2, 1, 0, 2027), utc(3, 1, 0, 2027)],
    [
      'February so far, up to the 29th at noon',
      utc(2, 1),
      utc(2, 29, 12),
      utc(2, 1, 0, 2027),
      utc(2, 28, 12, 2027),
    ],
    ['six hours of the 29th', utc(2, 29, 6), utc(2, 29, 12), utc(2, 28, 6, 2027), utc(2, 28, 12, 2027)],
    ['a day into the 29th', utc(2, 28, 12), utc(2, 29, 12), utc(2, 28, 12, 2027), utc(3, 1, 12, 2027)],
    ['back from 2029', utc(2, 28, 0, 2029), utc(3, 1, 0, 2029), utc(2, 28), utc(2, 29)],
  ])('%s', (_, start, end, from, to) => {
    expect(yearBefore({ start, end }, 'UTC')).toEqual({ start: from, end: to });
  });
});
