import type { HoursFilter } from '@vivid-beacon/core';

/** One condition of recurring hours that can be set by hand. */
export type HoursPart = Extract<HoursFilter, { kind: 'clock' | 'weekdays' | 'months' | 'working' }>;

/** Recurring hours as a list of conditions, all or any of which must hold. */
export interface HoursList {
  readonly join: 'all' | 'any';
  readonly parts: readonly HoursPart[];
}

/** A filter as such a list; null where it is built otherwise (nested, negated, by shift). */
export function hoursList(filter: HoursFilter | null): HoursList | null {
  if (filter === null) return { join: 'all', parts: [] };
  if (filter.kind === 'all' || filter.kind === 'any') {
    return filter.of.every(isPart) ? { join: filter.kind, parts: filter.of as HoursPart[] } : null;
  }
  return isPart(filter) ? { join: 'all', parts: [filter] } : null;
}

/** Undoes {@link hoursList}; no conditions are all hours. */
export function hoursOfList({ join, parts }: HoursList): HoursFilter | null {
  if (parts.length === 0) return null;
  return parts.length === 1 ? parts[0] : { kind: join, of: parts };
}

function isPart(filter: HoursFilter): filter is HoursPart {
  return ['clock', 'weekdays', 'months', 'working'].includes(filter.kind);
}

/** What a new condition begins with. */
export const NEW_PARTS: Readonly<Record<HoursPart['kind'], HoursPart>> = {
  clock: { kind: 'clock', from: '22:00', to: '06:00' },
  weekdays: { kind: 'weekdays', days: [6, 7] },
  months: { kind: 'months', months: [1] },
  working: { kind: 'working', inside: false },
};
