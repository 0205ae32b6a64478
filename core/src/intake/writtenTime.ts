import { isWeekday, monthOf } from './monthNames';
import { zoneEnding, type ZoneEnding } from './zoneEnding';

/**
 * A written time before its numbers are given a meaning. `date` holds either year, month and day, or the
 * three numbers of a date such as 03/04/26 whose order the text does not tell.
 */
export interface WrittenTime {
  readonly date:
    | { readonly order: 'known'; readonly year: number; readonly month: number; readonly day: number }
    | { readonly order: 'open'; readonly numbers: readonly [number, number, number] };
  /** The year has two digits only. */
  readonly shortYear: boolean;
  /** A month, quarter, week or year rather than a day. */
  readonly period: boolean;
  /** Time of day, ms; null when none is written. 24:00 is 86,400,000. */
  readonly clockMs: number | null;
  readonly ending: ZoneEnding | null;
}

const CLOCK =
  /(?:^|[T\s,:;]|(?<=\d)_)\s*(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*([ap]\.?\s?m\.?)?(?![\d:])/i;
/** ISO 8601 basic: 20261119T064000 */
const BASIC = /^(\d{8})T?(\d{2})(\d{2})(\d{2})?(?:[.,]\d+)?$/;

const ymd = (year: number, month: number, day: number, shortYear = false): Found => ({
  date: { order: 'known', year, month, day },
  shortYear,
  period: false,
});
const period = (year: number, month: number, day = 1, shortYear = false): Found => ({
  ...ymd(year, month, day, shortYear),
  period: true,
});
type Found = Pick<WrittenTime, 'date' | 'shortYear' | 'period'>;

const SEPARATOR = String.raw`[-/. ]`;
const WORD = String.raw`([\p{L}]{3,12})\.?`;
const YEAR = String.raw`'?(\d{4}|\d{2})`;

/** Ways of writing a date. The first that matches and names real months holds. */
const PATTERNS: readonly (readonly [RegExp, (found: readonly string[]) => Found | null])[] = [
  [new RegExp(String.raw`^(\d{4})(${SEPARATOR})(\d{1,2})\2(\d{1,2})$`), ([, y, , m, d]) => ymd(+y, +m, +d)],
  [/^(\d{4})(\d{2})(\d{2})$/, ([, y, m, d]) => ymd(+y, +m, +d)],
  [
    new RegExp(String.raw`^(\d{1,2})(\. ?|[-/ ])(\d{1,2})\2(\d{4}|\d{2})\.?$`),
    ([, a, , b, c]) => ({
      date: { order: 'open', numbers: [+a, +b, +c] },
      shortYear: c.length === 2,
      period: false,
    }),
  ],
  // 19 Nov 2026, 19-Nov-26, 19. November 2026, 19 de noviembre de 2026, 19/Nov/2026
  [
    new RegExp(
      String.raw`^(\d{1,2})(?:\.|st|nd|rd|th|er)?[-/ ]*(?:de |of )?${WORD}[-/, ]*(?:de )?${YEAR}$`,
      'u',
    ),
    ([, d, word, y]) => (monthOf(word) ? ymd(+y, monthOf(word), +d, y.length === 2) : null),
  ],
  // Nov 19, 2026
  [
    new RegExp(String.raw`^${WORD}[-/ ]*(\d{1,2})(?:st|nd|rd|th)?[-/, ]+(\d{4})$`, 'u'),
    ([, word, d, y]) => (monthOf(word) ? ymd(+y, monthOf(word), +d) : null),
  ],
  // 2026-Nov-19
  [
    new RegExp(String.raw`^(\d{4})[-/ ]${WORD}[-/ ](\d{1,2})$`, 'u'),
    ([, y, word, d]) => (monthOf(word) ? ymd(+y, monthOf(word), +d) : null),
  ],
  [/^(\d{4})-(\d{3})$/, ([, y, n]) => ordinal(+y, +n)],
  // Periods: year and month, quarter, week, year.
  [/^(\d{4})[-/.M ](\d{1,2})$/, ([, y, m]) => period(+y, +m)],
  [/^(\d{1,2})[-/.](\d{4})$/, ([, m, y]) => period(+y, +m)],
  [
    new RegExp(String.raw`^${WORD}[-/ ]*(\d{4}|'?\d{2})$`, 'u'),
    ([, word, y]) => (monthOf(word) ? period(+y.replace("'", ''), monthOf(word), 1, y.length < 4) : null),
  ],
  [
    new RegExp(String.raw`^(\d{4})[-/ ]*${WORD}$`, 'u'),
    ([, y, word]) => (monthOf(word) ? period(+y, monthOf(word)) : null),
  ],
  [/^(\d{4})[-/ ]?[QT]([1-4])$/i, ([, y, q]) => period(+y, +q * 3 - 2)],
  [/^[QT]([1-4])[-/ ]?(\d{4})$/i, ([, q, y]) => period(+y, +q * 3 - 2)],
  [/^([1-4])\.? ?(?:quartal|quarter|trimestre|kwartaal)[ /]?(\d{4})$/i, ([, q, y]) => period(+y, +q * 3 - 2)],
  [/^(\d{4})-?W(\d{1,2})(?:-?([1-7]))?$/i, ([, y, w, d]) => week(+y, +w, +(d ?? 1), d === undefined)],
  [/^(?:W|KW|week|woche|semaine) ?(\d{1,2})[-/ ]+(\d{4})$/i, ([, w, y]) => week(+y, +w, 1, true)],
  [/^(\d{4})$/, ([, y]) => period(+y, 1)],
];

/**
 * Reads a time as people and programs write it: with the year first, the day first or the month first, with the name
 * of the month in one of 15 languages, as a month, quarter, ISO 8601 week or year, with or without time of day (24 hours
 * or a.m. and p.m.), and with or without an offset or the name of a zone.
 *
 * @returns null for anything else, among it dates that do not exist and bare numbers other than 8 or 4 digits.
 */
export function readWrittenTime(text: string): WrittenTime | null {
  let rest = text.trim();
  if (rest.length < 4 || rest.length > 60) return null;
  const basic = BASIC.exec(rest.replace(/(?:Z|[+-]\d{4})$/, ''));
  if (basic && rest.includes('T')) {
    rest = rest.replace(/T(\d{2})(\d{2})(\d{2})?/, (_, h, m, s) => `T${h}:${m}${s ? `:${s}` : ''}`);
  }
  let clockMs: number | null = null;
  let ending: ZoneEnding | null = null;
  const clock = CLOCK.exec(rest);
  if (clock) {
    clockMs = clockOf(clock);
    if (clockMs === null) return null;
    let before = rest.slice(0, clock.index).trim();
    let after = rest.slice(clock.index + clock[0].length).trim();
    const cut = after === '' ? null : zoneEnding(after);
    // "Nov 19 06:40:00 UTC 2026": the year may stand last, behind the zone.
    const lastYear = /^(.*?)\s*(\d{4})$/.exec(after);
    if (lastYear && !/[+-]\d{4}$/.test(after)) {
      const inner = lastYear[1].trim();
      const zone = inner === '' ? null : zoneEnding(inner);
      if (inner !== '' && (!zone || zone.before !== '')) return null;
      ending = zone?.ending ?? null;
      before = `${before} ${lastYear[2]}`;
      after = '';
    } else if (cut && cut.before.trim() === '') {
      ending = cut.ending;
      after = '';
    }
    if (after !== '') return null;
    rest = before;
  } else if (/[ZzT]$/.test(rest) && /\d[ZzT]$/.test(rest)) {
    if (rest.endsWith('T')) return null;
    ending = { minutes: 0 };
    rest = rest.slice(0, -1);
  }
  rest = rest.replace(/,$/, '').trim();
  // "Mar" is March in English and Tuesday in Spanish: a weekday is only cut off where the whole is no date.
  const found = readDate(rest) ?? readDate(withoutWeekday(rest));
  return found && { ...found, clockMs, ending };
}

function withoutWeekday(text: string): string {
  const first = /^(\p{L}+)\.?,?\s+/u.exec(text);
  return first && isWeekday(first[1]) ? text.slice(first[0].length) : '';
}

function readDate(text: string): Found | null {
  for (const [pattern, make] of PATTERNS) {
    const found = pattern.exec(text);
    const made = found && make(found);
    if (!made) continue;
    const { date } = made;
    if (date.order === 'known' && !made.shortYear && !(isRealDate(date) && isPlausible(date.year)))
      return null;
    return made;
  }
  return null;
}

/** A year of four digits that a record could bear. */
function isPlausible(year: number): boolean {
  return year >= 1000 && year < 3000;
}

/** Whether this day exists in the Gregorian calendar, years 1 to 9999. */
export function isRealDate(date: {
  readonly year: number;
  readonly month: number;
  readonly day: number;
}): boolean {
  return dayMs(date) !== null;
}

/** Midnight of a day as if it were UTC, ms; null for a day that does not exist. */
export function dayMs({ year, month, day }: { year: number; month: number; day: number }): number | null {
  const date = new Date(Date.UTC(2000, month - 1, day));
  date.setUTCFullYear(year, month - 1, day);
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day ? date.getTime() : null;
}

function clockOf([, hour, minute, second, fraction, half]: readonly (string | undefined)[]): number | null {
  let hours = Number(hour);
  const [minutes, seconds] = [Number(minute), Number(second ?? 0)];
  if (half) {
    if (hours < 1 || hours > 12) return null;
    hours = (hours % 12) + (/^p/i.test(half) ? 12 : 0);
  }
  // ISO 8601 lets a day end at 24:00: it is the next day's midnight. A leap second is the second after it.
  if (hours > 24 || (hours === 24 && (minutes > 0 || seconds > 0)) || minutes > 59 || seconds > 60)
    return null;
  const ms = fraction ? Math.round(Number(`0.${fraction}`) * 1000) : 0;
  return ((hours * 60 + minutes) * 60 + seconds) * 1000 + ms;
}

function ordinal(year: number, n: number): Found | null {
  if (n < 1 || n > 366) return null;
  const date = new Date(Date.UTC(year, 0, n));
  return date.getUTCFullYear() === year ? ymd(year, date.getUTCMonth() + 1, date.getUTCDate()) : null;
}

/** ISO 8601 weeks begin on Monday; week 1 holds 4 January. */
function week(year: number, n: number, weekday: number, whole: boolean): Found | null {
  if (n < 1 || n > 53) return null;
  const fourth = new Date(Date.UTC(year, 0, 4));
  const monday = fourth.getTime() - ((fourth.getUTCDay() + 6) % 7) * 86_400_000;
  const date = new Date(monday + ((n - 1) * 7 + weekday - 1) * 86_400_000);
  const made = ymd(date.getUTCFullYear(), date.getUTCMonth() + 1, date.getUTCDate());
  return { ...made, period: whole };
}
