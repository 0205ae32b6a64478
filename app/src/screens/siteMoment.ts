import { formatMomentFrom } from '@vivid-beacon/core';
import { deviceZone } from './deviceZone';

const HOME = deviceZone();

/** When something was, on the clock of its site; with the place where this device's clock shows another time. */
export function siteMoment(t: number, zone: string, now?: number): string {
  return formatMomentFrom(t, zone, HOME, now);
}
