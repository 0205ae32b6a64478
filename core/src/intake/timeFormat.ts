import type { LocalTime } from '../time/localTime';

/** Ways of writing a time that files really use. */
export const TIME_FORMATS = [
  'iso',
  'day-first',
  'month-first',
  'epoch-seconds',
  'epoch-milliseconds',
  'serial',
] as const;
export type TimeFormat = (typeof TIME_FORMATS)[number];

export const TIME_FORMAT_WORDS: Readonly<Record<TimeFormat, string>> = {
  iso: 'year first (2026-11-19 06:40)',
  'day-first': 'day first (19.11.2026 06:40)',
  'month-first': 'month first (11/19/2026 06:40)',
  'epoch-seconds': 'seconds since 1970',
  'epoch-milliseconds': 'milliseconds since 1970',
  serial: 'spreadsheet day number (46345.28)',
};

/** What one cell said about time: an instant, a wall-clock time, or nothing readable. */
export type TimeCell =
  | { readonly kind: 'instant'; readonly t: number }
  | { readonly kind: 'wall'; readonly wallMs: number }
  | { readonly kind: 'unreadable' };

const CLOCK = String.raw`(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,6}))?)?\s*(am|pm)?)?`;
const OFFSET = String.raw`\s*(Z|[+-]\d{2}:?\d{2})?`;
const YEAR_FIRST = new RegExp(String.raw`^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})${CLOCK}${OFFSET}$`, 'i');
const YEAR_LAST = new RegExp(String.raw`^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4})${CLOCK}${OFFSET}$`, 'i');
const UNREADABLE: TimeCell = { kind: 'unreadable' };

/** Reads one time cell. Dates that do not exist (31 June, hour 25) are unreadable. */
export function parseTimeCell(text: string, format: TimeFormat): TimeCell {
  const trimmed = text.trim();
  if (format === 'epoch-seconds' || format === 'epoch-milliseconds') {
    if (!/^-?\d+(\.\d+)?$/.test(trimmed)) return UNREADABLE;
    return { kind: 'instant', t: Math.round(Number(trimmed) * (format === 'epoch-seconds' ? 1000 : 1)) };
  }
  if (format === 'serial') {
    const days = /^\d+([.,]\d+)?$/.test(trimmed) ? Number(trimmed.replace(',', '.')) : NaN;
    if (!(days >= 1 && days < 2_958_466)) return UNREADABLE;
    // Day 25,569 is 1 January 1970; seconds are as fine as these numbers go.
    return { kind: 'wall', wallMs: Math.round((days - 25_569) * 86_400) * 1000 };
  }
  const found = (format === 'iso' ? YEAR_FIRST : YEAR_LAST).exec(trimmed);
  if (!found) return UNREADABLE;
  const [, a, b, c, hour, minute, second, fraction, half, offset] = found;
  const [year, month, day] = format === 'iso' ? [a, b, c] : format === 'day-first' ? [c, b, a] : [c, a, b];
  let hours = Number(hour ?? 0);
  if (half) {
    if (hours < 1 || hours > 12) return UNREADABLE;
    hours = (hours % 12) + (half.toLowerCase() === 'pm' ? 12 : 0);
  }
  const ms = fraction ? Math.round(Number(`0.${fraction}`) * 1000) : 0;
  const parts = [Number(year), Number(month), Number(day), hours, Number(minute ?? 0), Number(second ?? 0)];
  const wallMs = wallClock(parts, ms);
  if (wallMs === null) return UNREADABLE;
  if (!offset) return { kind: 'wall', wallMs };
  return { kind: 'instant', t: wallMs - offsetMs(offset) };
}

function wallClock([year, month, day, hour, minute, second]: number[], ms: number): number | null {
  // ISO 8601 lets a day end at 24:00; it is the next day's midnight.
  if (hour > 24 || (hour === 24 && (minute > 0 || second > 0)) || minute > 59 || second > 59) return null;
  const date = new Date(Date.UTC(year, month - 1, day));
  if (date.getUTCMonth() !== month - 1 || date.getUTCDate() !== day) return null;
  return date.getTime() + ((hour * 60 + minute) * 60 + second) * 1000 + ms;
}

function offsetMs(offset: string): number {
  if (offset.toUpperCase() === 'Z') return 0;
  const sign = offset.startsWith('-') ? -1 : 1;
  const digits = offset.replace(/\D/g, '');
  return sign * (Number(digits.slice(0, 2)) * 60 + Number(digits.slice(2))) * 60_000;
}

/** Turns a time cell into an instant with a zone's reader; says why when it cannot. */
export function instantOf(
  cell: TimeCell,
  local: (wallMs: number) => LocalTime,
): { readonly t: number; readonly second?: number } | { readonly reason: string } {
  if (cell.kind === 'unreadable') return { reason: 'not a time in the chosen format' };
  if (cell.kind === 'instant') return { t: cell.t };
  const meant = local(cell.wallMs);
  if (meant.kind === 'never') {
    return { reason: 'this time does not exist: the clock was set forward over it' };
  }
  return meant.kind === 'twice' ? { t: meant.t, second: meant.second } : { t: meant.t };
}

/**
 * The formats under which every one of the cells is a time, the likelier first. More than one means the
 * file itself cannot tell (03/04/2026): a person has to.
 */
export function fittingTimeFormats(cells: readonly string[]): TimeFormat[] {
  const given = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  if (given.length === 0) return [];
  const dates = (['iso', 'day-first', 'month-first'] as const).filter((format) =>
    mostly(given, (cell) => parseTimeCell(cell, format).kind !== 'unreadable'),
  );
  if (dates.length > 0) return dates;
  // Bare numbers are times only where they are plausible: 1990 to 2100.
  const between = (low: number, high: number): boolean =>
    mostly(
      given,
      (cell) =>
        /^\d+([.,]\d+)?$/.test(cell) &&
        Number(cell.replace(',', '.')) >= low &&
        Number(cell.replace(',', '.')) <= high,
    );
  if (between(631_152_000, 4_102_444_800)) return ['epoch-seconds'];
  if (between(631_152_000_000, 4_102_444_800_000)) return ['epoch-milliseconds'];
  if (between(32_874, 73_050) && rises(given)) return ['serial'];
  return [];
}

/** Day numbers of a spreadsheet go up; a column of readings of that size hardly does throughout. */
function rises(cells: readonly string[]): boolean {
  const numbers = cells.map((cell) => Number(cell.replace(',', '.'))).filter((n) => !Number.isNaN(n));
  return numbers.length > 1 && numbers.every((n, i) => i === 0 || n >= numbers[i - 1]);
}

const CLOCK_CELL = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,]\d+)?)?\s*(am|pm)?$/i;

/** Is this a time of day alone, "06:40" or "6:40 pm"? */
export function isClockCell(text: string): boolean {
  return CLOCK_CELL.test(text.trim());
}

/** A few bad cells must not hide what the column is. */
function mostly(cells: readonly string[], fits: (cell: string) => boolean): boolean {
  return cells.filter(fits).length >= cells.length * 0.8;
}
