import { IANAZone } from 'luxon';
import { MINUTE_MS } from './lengths';
import { zoneClock } from './zoneClock';

/** The library's zone with the remembered offsets of {@link zoneClock}: it would ask the system for each moment anew. */
class SteadyZone extends IANAZone {
  override offset(t: number): number {
    // A moment that cannot be told has no offset, here as there.
    return Number.isFinite(t) ? zoneClock(this.name).offset(t) / MINUTE_MS : NaN;
  }
}

const zones = new Map<string, IANAZone>();

/** A zone for dates that are written many times a second; an unknown name gives an invalid zone, as the library does. */
export function steadyZone(name: string): IANAZone {
  let zone = zones.get(name);
  if (!zone) {
    zone = IANAZone.isValidZone(name) ? new SteadyZone(name) : IANAZone.create(name);
    zones.set(name, zone);
  }
  return zone;
}
