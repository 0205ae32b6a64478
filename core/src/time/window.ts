import { DateTime } from 'luxon';
import { BeaconError } from '../errors';
import { sameMeaning } from '../format/sameMeaning';
import { checkBounds } from './bounds';
import { BUCKET_WORDS } from './buckets';
import type { Interval } from './interval';
import { DAY_MS, HOUR_MS } from './lengths';
import { zoneClock } from './zoneClock';
import type { WindowSpec } from './windowSpec';
import type { WindowUnit } from './windowUnit';
import { plusPeriods, startOfPeriod, DEFAULT_RULES, type PeriodRules } from './periodStart';

/**
 * The stretch of time a window means.
 *
 * Days and everything longer begin at local midnight of `zone`, weeks on Monday (ISO 8601) and financial
 * years in January unless `rules` say otherwise. A
 * to-date or current period ends at its calendar end, so that what is still to come can be shown.
 *
 * @param now  ms since the Unix epoch. @param zone IANA name.
 * @throws {BeaconError} BAD_INPUT for an unknown zone, a count below 1, an end not after its start, or years that the
 *         product does not know.
 */
export function resolveWindow(
  spec: WindowSpec,
  now: number,
  zone: string,
  rules: PeriodRules = DEFAULT_RULES,
): Interval {
  const window = meantBy(spec, now, zone, rules);
  checkBounds(window);
  return window;
}

function meantBy(spec: WindowSpec, now: number, zone: string, rules: PeriodRules): Interval {
  if (spec.kind === 'absolute') return absoluteWindow(spec, zone);
  switch (spec.kind) {
    case 'rolling': {
      needCount(spec.count);
      // Hours are a length here, not hours of the clock.
      const back = spec.unit === 'hour' ? now - spec.count * HOUR_MS : null;
      return { start: back ?? plusPeriods(now, -spec.count, spec.unit, zone), end: now };
    }
    case 'periods': {
      needCount(spec.count);
      const current = startOfPeriod(now, spec.unit, zone, rules);
      const end = spec.current ? plusPeriods(current, 1, spec.unit, zone) : current;
      return { start: plusPeriods(end, -spec.count, spec.unit, zone), end };
    }
    case 'next': {
      needCount(spec.count);
      const current = startOfPeriod(now, spec.unit, zone, rules);
      const start = spec.current ? current : plusPeriods(current, 1, spec.unit, zone);
      return { start, end: plusPeriods(start, spec.count, spec.unit, zone) };
    }
    case 'toDate': {
      const start = startOfPeriod(now, spec.unit, zone, rules);
      return { start, end: plusPeriods(start, 1, spec.unit, zone) };
    }
  }
}

/** A time with its own offset is that instant; one without is on the wall clock of the zone. */
const WITH_OFFSET = /(?:Z|[+-]\d\d(?::?\d\d)?)$/;

function absoluteWindow(spec: WindowSpec & { kind: 'absolute' }, zone: string): Interval {
  const clock = zoneClock(zone);
  const moment = (field: 'start' | 'end'): number => {
    const text = spec[field];
    const at = DateTime.fromISO(text, { zone: 'utc' });
    if (!at.isValid) throw badTime(field, text);
    const clockPart = text.indexOf('T');
    const wallMs = at.toMillis();
    if (clockPart > 0 && WITH_OFFSET.test(text.slice(clockPart))) return wallMs;
    return wallMs % DAY_MS === 0 ? clock.startOfDay(wallMs) : clock.instant(wallMs);
  };
  const start = moment('start');
  const end = moment('end');
  if (end <= start) {
    throw new BeaconError(
      'BAD_INPUT',
      `The window must end after it starts, got ${spec.start} to ${spec.end}.`,
      'window.end',
    );
  }
  return { start, end };
}

function needCount(count: number): void {
  if (!(count >= 1)) {
    throw new BeaconError('BAD_INPUT', `A window needs at least 1 period, got ${count}.`, 'window.count');
  }
}

function badTime(field: 'start' | 'end', value: string): BeaconError {
  return new BeaconError(
    'BAD_INPUT',
    `The window's ${field} must be a time such as 2026-11-19T06:00, got "${value}".`,
    `window.${field}`,
  );
}

/** Whether two windows are equal, regardless of the order of their members. */
export function sameWindow(a: WindowSpec, b: WindowSpec): boolean {
  return sameMeaning(a, b);
}

/**
 * The window in words, for sentences: "the last 7 days", "this month so far".
 * @example windowWords({ kind: 'toDate', unit: 'day' }) // => 'today so far'
 */
export function windowWords(spec: WindowSpec): string {
  switch (spec.kind) {
    case 'rolling':
      return spec.count === 1 ? `the last ${word(spec.unit)}` : `the last ${spec.count} ${word(spec.unit)}s`;
    case 'periods': {
      const unit = word(spec.unit);
      const units = spec.count === 1 ? unit : `${spec.count} ${unit}s`;
      if (spec.current) return spec.count === 1 ? `this ${unit}` : `${units} with this ${unit}`;
      return spec.count === 1 ? `the ${unit} before` : `the ${units} before this ${unit}`;
    }
    case 'next': {
      const unit = word(spec.unit);
      const units = spec.count === 1 ? unit : `${spec.count} ${unit}s`;
      if (spec.current) return spec.count === 1 ? `this ${unit}` : `${units} from this ${unit} on`;
      return spec.count === 1 ? `the next ${unit}` : `the next ${units}`;
    }
    case 'toDate':
      return spec.unit === 'day' ? 'today so far' : `this ${word(spec.unit)} so far`;
    case 'absolute':
      return `${spec.start.replace('T', ' ')} to ${spec.end.replace('T', ' ')}`;
  }
}

function word(unit: WindowUnit): string {
  return unit === 'minute' ? unit : BUCKET_WORDS[unit];
}
