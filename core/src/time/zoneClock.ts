import { IANAZone } from 'luxon';
import { BeaconError } from '../errors';
import { DAY_MS } from './lengths';

/** The clock of a zone: offsets and local days, fast enough to be asked for every hour of a year. */
export interface ZoneClock {
  /** By how many ms local time is ahead of UTC at an instant. */
  readonly offset: (t: number) => number;
  /** The local day that holds an instant: its midnight on the wall clock, written as ms as if it were UTC. */
  readonly dayAt: (t: number) => number;
  /**
   * The instant of a wall-clock time: of two the first; where the clock jumps over it, it is read with the offset
   * before the jump (RFC 5545, section 3.3.5).
   */
  readonly instant: (wallMs: number) => number;
  /**
   * The first instant of a local day: of two midnights the first; where the clock jumps over midnight, the jump.
   * Days follow one another without gaps or overlap.
   */
  readonly startOfDay: (wallMs: number) => number;
}

/**
 * Between two points of this grid no zone of the tz database of today changes more than once.
 */
const GRID_MS = 5 * DAY_MS;
const clocks = new Map<string, ZoneClock>();

/** The clock of an IANA zone. @throws {BeaconError} BAD_INPUT for an unknown one. */
export function zoneClock(zone: string): ZoneClock {
  const known = clocks.get(zone);
  if (known) return known;
  const iana = IANAZone.create(zone);
  if (!iana.isValid) throw new BeaconError('BAD_INPUT', `Unknown time zone "${zone}".`, 'zone');
  const exact = (t: number): number => iana.offset(t) * 60_000;
  const grid = new Map<number, number>();
  const at = (point: number): number => {
    let offset = grid.get(point);
    if (offset === undefined) {
      offset = exact(point * GRID_MS);
      grid.set(point, offset);
    }
    return offset;
  };
  const changes = new Map<number, number>();
  /** When the offset changes between a point of the grid and the next. */
  const changeIn = (point: number): number => {
    let change = changes.get(point);
    if (change === undefined) {
      change = firstChange(point * GRID_MS, (point + 1) * GRID_MS, exact);
      changes.set(point, change);
    }
    return change;
  };
  const offset = (t: number): number => {
    const point = Math.floor(t / GRID_MS);
    const before = at(point);
    const after = at(point + 1);
    return before === after || t < changeIn(point) ? before : after;
  };
  const instant = (wallMs: number): number => {
    const earlier = offset(wallMs - DAY_MS);
    const later = offset(wallMs + DAY_MS);
    if (earlier === later) return wallMs - earlier;
    const fits = [earlier, later].map((each) => wallMs - each).filter((t) => t + offset(t) === wallMs);
    return fits.length > 0 ? Math.min(...fits) : wallMs - earlier;
  };
  const startOfDay = (wallMs: number): number => {
    const start = instant(wallMs);
    return start + offset(start) === wallMs ? start : firstChange(start - DAY_MS, start, offset);
  };
  const dayAt = (t: number): number => {
    const day = Math.floor((t + offset(t)) / DAY_MS) * DAY_MS;
    if (offset(t - DAY_MS) === offset(t + DAY_MS)) return day;
    // Where the clock is set back over midnight, the day that has begun goes on.
    if (t >= startOfDay(day + DAY_MS)) return day + DAY_MS;
    return t < startOfDay(day) ? day - DAY_MS : day;
  };
  const clock: ZoneClock = { offset, dayAt, instant, startOfDay };
  clocks.set(zone, clock);
  return clock;
}

/** The first instant with another offset than `from`, of which there is one up to `to`. */
function firstChange(from: number, to: number, offset: (t: number) => number): number {
  let [low, high] = [from, to];
  const before = offset(from);
  while (high - low > 1) {
    const middle = Math.floor((low + high) / 2);
    if (offset(middle) === before) low = middle;
    else high = middle;
  }
  return high;
}

/** One local day: its wall-clock midnight, and its start and end as instants (23 to 25 hours apart). */
export interface LocalDay {
  readonly wallMs: number;
  readonly start: number;
  readonly end: number;
  /** 1 = Monday … 7 = Sunday. */
  readonly weekday: number;
}

/** Every local day that touches a stretch of time, in order; with `before` days in front of them. */
export function localDays(from: number, to: number, zone: string, before = 0): LocalDay[] {
  const { dayAt, startOfDay } = zoneClock(zone);
  const days: LocalDay[] = [];
  let wallMs = dayAt(from) - before * DAY_MS;
  let start = startOfDay(wallMs);
  while (start < to) {
    const end = startOfDay(wallMs + DAY_MS);
    // 1 January 1970 was a Thursday.
    days.push({ wallMs, start, end, weekday: ((((wallMs / DAY_MS + 3) % 7) + 7) % 7) + 1 });
    wallMs += DAY_MS;
    start = end;
  }
  return days;
}
