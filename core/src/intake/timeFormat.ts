import type { LocalTime } from '../time/localTime';
import { dayMs, isRealDate, readWrittenTime, type WrittenTime } from './writtenTime';
import type { ZoneEnding } from './zoneEnding';

/** Ways of writing a time that files use. */
export const TIME_FORMATS = [
  'iso',
  'day-first',
  'month-first',
  'period',
  'epoch-seconds',
  'epoch-milliseconds',
  'epoch-microseconds',
  'epoch-mixed',
  'serial',
  'serial-1904',
] as const;
export type TimeFormat = (typeof TIME_FORMATS)[number];

export const TIME_FORMAT_WORDS: Readonly<Record<TimeFormat, string>> = {
  iso: 'year first, or the month by name (2026-11-19 06:40, 19 Nov 2026)',
  'day-first': 'day first (19.11.2026 06:40)',
  'month-first': 'month first (11/19/2026 06:40)',
  period: 'years, quarters, months or weeks (2026, Q4 2026, Nov 2026, 2026-W47)',
  'epoch-seconds': 'seconds since 1970',
  'epoch-milliseconds': 'milliseconds since 1970',
  'epoch-microseconds': 'microseconds since 1970',
  'epoch-mixed': 'seconds, milliseconds or microseconds since 1970, told apart by size',
  serial: 'spreadsheet day number, from 1900 (46345.28)',
  'serial-1904': 'spreadsheet day number, from 1904 (44883.28)',
};

/** Which century a year of two digits lies in. */
export const CENTURIES = ['2000', '1900', 'sliding'] as const;
export type Century = (typeof CENTURIES)[number];
export const CENTURY_WORDS: Readonly<Record<Century, string>> = {
  '2000': '2000 to 2099',
  '1900': '1900 to 1999',
  sliding: '1970 to 2069',
};

/**
 * The content of a time cell: an instant, a wall-clock time (of the file's zone or its own), or nothing
 * readable.
 */
export type TimeCell =
  | { readonly kind: 'instant'; readonly t: number }
  | { readonly kind: 'wall'; readonly wallMs: number; readonly zone?: string }
  | { readonly kind: 'unreadable'; readonly why?: string };

const UNREADABLE: TimeCell = { kind: 'unreadable' };
const BARE_NUMBER = /^-?\d+(?:[.,]\d+)?$/;
const DAY = 86_400_000;

/**
 * Reads one time cell. Dates that do not exist (31 June, hour 25) are unreadable.
 *
 * @param century needed for years of two digits only; without it they are unreadable.
 * @example parseTimeCell('19.11.2026 06:40', 'day-first') // => { kind: 'wall', wallMs: Date.UTC(2026, 10, 19, 6, 40) }
 */
export function parseTimeCell(text: string, format: TimeFormat, century: Century | null = null): TimeCell {
  if (format === 'iso') {
    const quick = plainIso(text);
    if (quick) return quick;
  }
  const trimmed = text.trim();
  if (format.startsWith('epoch') || format.startsWith('serial')) return parseBareTime(trimmed, format);
  const written = readWrittenTime(trimmed);
  if (!written) {
    // Among written times a number of 9 digits and more can only be an epoch.
    return BARE_NUMBER.test(trimmed) && Math.abs(Number(trimmed)) >= 1e8
      ? parseBareTime(trimmed, 'epoch-mixed')
      : UNREADABLE;
  }
  return timeOfWritten(written, format, century);
}

function timeOfWritten(written: WrittenTime, format: TimeFormat, century: Century | null): TimeCell {
  if (written.period && format !== 'period') return { kind: 'unreadable', why: 'names a period, not a day' };
  const date = dateOf(written, format);
  if (!date) return UNREADABLE;
  if (written.shortYear && century === null) return { kind: 'unreadable', why: 'the year has two digits' };
  const midnight = dayMs(written.shortYear ? { ...date, year: fullYear(date.year, century!) } : date);
  if (midnight === null) return UNREADABLE;
  return placed(midnight + (written.clockMs ?? 0), written.ending);
}

function placed(wallMs: number, ending: ZoneEnding | null): TimeCell {
  if (ending === null) return { kind: 'wall', wallMs };
  if ('minutes' in ending) return { kind: 'instant', t: wallMs - ending.minutes * 60_000 };
  if ('zone' in ending) return { kind: 'wall', wallMs, zone: ending.zone };
  return { kind: 'unreadable', why: `several zones are called ${ending.unknown}, or none` };
}

function dateOf(
  { date, shortYear }: WrittenTime,
  format: TimeFormat,
): { year: number; month: number; day: number } | null {
  if (date.order === 'known') return date;
  const [a, b, c] = date.numbers;
  if (format === 'day-first') return { year: c, month: b, day: a };
  if (format === 'month-first') return { year: c, month: a, day: b };
  return format === 'iso' && shortYear ? { year: a, month: b, day: c } : null;
}

function fullYear(short: number, century: Century): number {
  if (century === 'sliding') return short < 70 ? 2000 + short : 1900 + short;
  return Number(century) + short;
}

const digitsAt = (text: string, at: number, n: number): number => {
  let value = 0;
  for (let i = at; i < at + n; i++) {
    const digit = text.charCodeAt(i) - 48;
    if (!(digit >= 0 && digit <= 9)) return NaN;
    value = value * 10 + digit;
  }
  return value;
};

/** 2026-11-19, 2026-11-19T06:40:00.123Z: what nearly all large files hold, read without a pattern; null for others. */
export function plainIso(text: string): TimeCell | null {
  const n = text.length;
  if (n < 10 || text[4] !== '-' || text[7] !== '-') return null;
  const [year, month, day] = [digitsAt(text, 0, 4), digitsAt(text, 5, 2), digitsAt(text, 8, 2)];
  if (!(year >= 100 && month >= 1 && month <= 12 && day >= 1 && day <= 31)) return null;
  const midnight = Date.UTC(year, month - 1, day);
  // Up to the 28th every day exists.
  if (day > 28 && new Date(midnight).getUTCDate() !== day) return null;
  if (n === 10) return { kind: 'wall', wallMs: midnight };
  if ((text[10] !== 'T' && text[10] !== ' ') || text[13] !== ':') return null;
  const [hour, minute] = [digitsAt(text, 11, 2), digitsAt(text, 14, 2)];
  if (!(hour <= 23 && minute <= 59)) return null;
  let ms = (hour * 60 + minute) * 60_000;
  let at = 16;
  if (text[at] === ':') {
    const second = digitsAt(text, 17, 2);
    if (!(second <= 59)) return null;
    ms += second * 1000;
    at = 19;
    if (text[at] === '.') {
      let unit = 100;
      for (at++; at < n && text.charCodeAt(at) >= 48 && text.charCodeAt(at) <= 57; at++, unit /= 10) {
        if (unit < 1) return null;
        ms += (text.charCodeAt(at) - 48) * unit;
      }
    }
  }
  if (at === n) return { kind: 'wall', wallMs: midnight + ms };
  return at === n - 1 && text[at] === 'Z' ? { kind: 'instant', t: midnight + ms } : null;
}

/** Largest second count that is taken for seconds: the year 5138. */
const MAX_SECONDS = 1e11;

function parseBareTime(text: string, format: TimeFormat): TimeCell {
  if (!BARE_NUMBER.test(text)) return UNREADABLE;
  const value = Number(text.replace(',', '.'));
  const instant = (perMs: number): TimeCell => ({ kind: 'instant', t: Math.round(value / perMs) });
  switch (format) {
    case 'epoch-seconds':
      return instant(0.001);
    case 'epoch-milliseconds':
      return instant(1);
    case 'epoch-microseconds':
      return instant(1000);
    case 'epoch-mixed': {
      const size = Math.abs(value);
      if (size < MAX_SECONDS) return instant(0.001);
      if (size < MAX_SECONDS * 1e3) return instant(1);
      return instant(size < MAX_SECONDS * 1e6 ? 1000 : 1_000_000);
    }
    default: {
      if (!(value >= 0 && value < 2_958_466)) return UNREADABLE;
      // Day 25,569 from 1900 and day 24,107 from 1904 are 1 January 1970; seconds are as fine as these numbers go.
      const days = value - (format === 'serial' ? 25_569 : 24_107);
      return { kind: 'wall', wallMs: Math.round((days * DAY) / 1000) * 1000 };
    }
  }
}

/** Turns a time cell into an instant with a zone's reader; says why when it cannot. */
export function instantOf(
  cell: TimeCell,
  local: (wallMs: number, zone?: string) => LocalTime,
): { readonly t: number; readonly second?: number } | { readonly reason: string } {
  if (cell.kind === 'unreadable') {
    return { reason: `not a time in the chosen format${cell.why ? `: ${cell.why}` : ''}` };
  }
  if (cell.kind === 'instant') return { t: cell.t };
  const meant = local(cell.wallMs, cell.zone);
  if (meant.kind === 'never') {
    return { reason: 'this time does not exist: the clock was set forward over it' };
  }
  return meant.kind === 'twice' ? { t: meant.t, second: meant.second } : { t: meant.t };
}

/** The formats under which a written time is one, and what else it tells of its column. */
export interface TimeTraits {
  readonly formats: readonly TimeFormat[];
  readonly shortYear: boolean;
  readonly hasClock: boolean;
}

/** Which formats a single written cell fits; null when it is no written time. Bare numbers are none, save 8 digits. */
export function timeFormatTraits(text: string): TimeTraits | null {
  const trimmed = text.trim();
  if (/^\d{1,7}$/.test(trimmed) || /^\d{9,}$/.test(trimmed)) return null;
  const written = readWrittenTime(trimmed);
  if (!written) return null;
  const rest = { shortYear: written.shortYear, hasClock: written.clockMs !== null };
  if (written.period) return { formats: ['period'], ...rest };
  if (written.date.order === 'known') return { formats: ['iso', 'day-first', 'month-first'], ...rest };
  const formats = (['iso', 'day-first', 'month-first'] as const).filter((format) => {
    const date = dateOf(written, format);
    // In a year of two digits 29 February may exist: 2000 had one.
    return date && isRealDate(written.shortYear ? { ...date, year: 2000 } : date);
  });
  return formats.length === 0 ? null : { formats, ...rest };
}

/**
 * The formats under which every one of a few cells is a time, the likelier first. More than one means the
 * cells cannot tell (03/04/2026): a person has to.
 */
export function fittingTimeFormats(cells: readonly string[]): TimeFormat[] {
  const given = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  if (given.length === 0) return [];
  const traits = given.map(timeFormatTraits);
  const fits = (format: TimeFormat): number => traits.filter((each) => each?.formats.includes(format)).length;
  const best = Math.max(...(['iso', 'day-first', 'month-first', 'period'] as const).map(fits));
  if (best >= given.length * 0.8) {
    if (fits('iso') === best) return ['iso'];
    return (['day-first', 'month-first', 'period'] as const).filter((format) => fits(format) === best);
  }
  const between = (low: number, high: number): boolean =>
    given.filter(
      (cell) => BARE_NUMBER.test(cell) && +cell.replace(',', '.') >= low && +cell.replace(',', '.') <= high,
    ).length >=
    given.length * 0.8;
  if (between(631_152_000, 4_102_444_800)) return ['epoch-seconds'];
  if (between(631_152_000_000, 4_102_444_800_000)) return ['epoch-milliseconds'];
  return [];
}

const CLOCK_CELL = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?\s*(am|pm)?$/i;

/** Whether this is a time of day alone, "06:40" or "6:40 pm". */
export function isClockCell(text: string): boolean {
  const found = CLOCK_CELL.exec(text.trim());
  return found !== null && Number(found[1]) <= 24 && Number(found[2]) <= 59;
}
