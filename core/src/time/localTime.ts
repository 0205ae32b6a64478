import { MINUTE_MS } from './lengths';
import { IANAZone } from 'luxon';
import { BeaconError } from '../errors';
import { DAY_MS } from './lengths';
import { dayOf } from '../series/dayCodec';

/** The instants of a wall-clock time in a zone. */
export type LocalTime =
  | { readonly kind: 'once'; readonly t: number }
  /** The clock was set back: the time came twice. `t` is the first, `second` the later one. */
  | { readonly kind: 'twice'; readonly t: number; readonly second: number }
  /** The clock was set forward: the time never was. */
  | { readonly kind: 'never' };

/**
 * Makes a reader of wall-clock times in one zone. It remembers the offset of days on which the clock
 * does not change, so that a million times cost few calendar look-ups.
 *
 * @param zone IANA name. @throws {BeaconError} BAD_INPUT for an unknown one.
 * @returns a function from wall-clock time, written as ms as if it were UTC, to what it means.
 */
export function localTimeReader(zone: string): (wallMs: number) => LocalTime {
  const iana = IANAZone.create(zone);
  if (!iana.isValid) throw new BeaconError('BAD_INPUT', `Unknown time zone "${zone}".`, 'zone');
  const steady = new Map<number, number | null>();

  /** Offset in ms that holds from a day before to a day after this wall-clock day; null if it changes. */
  const offsetOfDay = (day: number): number | null => {
    const known = steady.get(day);
    if (known !== undefined) return known;
    const before = iana.offset(day - DAY_MS);
    const after = iana.offset(day + 2 * DAY_MS);
    const offset = before === after ? before * MINUTE_MS : null;
    steady.set(day, offset);
    return offset;
  };

  return (wallMs) => {
    const offset = offsetOfDay(dayOf(wallMs));
    if (offset !== null) return { kind: 'once', t: wallMs - offset };
    const candidates = [...new Set([iana.offset(wallMs - DAY_MS), iana.offset(wallMs + DAY_MS)])].map(
      (minutes) => ({ t: wallMs - minutes * MINUTE_MS, minutes }),
    );
    const fits = candidates
      .filter(({ t, minutes }) => iana.offset(t) === minutes)
      .map(({ t }) => t)
      .sort((a, b) => a - b);
    if (fits.length === 0) return { kind: 'never' };
    return fits.length === 1 ? { kind: 'once', t: fits[0] } : { kind: 'twice', t: fits[0], second: fits[1] };
  };
}
