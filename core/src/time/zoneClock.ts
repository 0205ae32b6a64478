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
   * The instant of a wall-clock time: of two the first; where the clock jumps over it, the instant of the jump.
   */
  readonly instant: (wallMs: number) => number;
}

/**
 * Between two points of this grid at which the offset is the same, no zone of the tz database of today
 * changes and changes back.
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
  const offset = (t: number): number => {
    const point = Math.floor(t / GRID_MS);
    const before = at(point);
    return before === at(point + 1) ? before : exact(t);
  };
  const instant = (wallMs: number): number => {
    const earlier = offset(wallMs - DAY_MS);
    const later = offset(wallMs + DAY_MS);
    if (earlier === later) return wallMs - earlier;
    const fits = [earlier, later].map((each) => wallMs - each).filter((t) => t + offset(t) === wallMs);
    return fits.length > 0 ? Math.min(...fits) : wallMs - earlier;
  };
  const clock: ZoneClock = {
    offset,
    dayAt: (t) => Math.floor((t + offset(t)) / DAY_MS) * DAY_MS,
    instant,
  };
  clocks.set(zone, clock);
  return clock;
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
  const { dayAt, instant } = zoneClock(zone);
  const days: LocalDay[] = [];
  let wallMs = dayAt(from) - before * DAY_MS;
  let start = instant(wallMs);
  while (start < to) {
    const end = instant(wallMs + DAY_MS);
    // 1 January 1970 was a Thursday.
    days.push({ wallMs, start, end, weekday: ((((wallMs / DAY_MS + 3) % 7) + 7) % 7) + 1 });
    wallMs += DAY_MS;
    start = end;
  }
  return days;
}
