import { HEADING, wordsOf } from './headingWords';
import type { TimePart } from './layout';
import type { ColumnSurvey } from './survey';
import { timeFormatTraits, type TimeFormat } from './timeFormat';

/** Columns that give the times of rows, and how those are written. */
export interface FoundTimes {
  /** Part of each time column, by its number. Several of part "time" date groups that stand side by side. */
  readonly parts: ReadonlyMap<number, TimePart>;
  /** Columns with times that do not date the rows. */
  readonly others: readonly number[];
  readonly formats: readonly TimeFormat[];
  readonly shortYears: boolean;
}

/** Share of cells that must be times for a time column; a few bad cells must not hide it. */
const MOSTLY = 0.5;
const NEARLY_ALL = 0.95;

type Columns = readonly ColumnSurvey[];

const share = (n: number, { filled }: ColumnSurvey): number => (filled === 0 ? 0 : n / filled);

export function isWrittenTime(column: ColumnSurvey): boolean {
  return share(column.written, column) >= MOSTLY;
}

export function isClock(column: ColumnSurvey): boolean {
  return share(column.clocks, column) >= 0.9;
}

/**
 * Finds the columns that date the rows. A bare number is a time only where no written date stands in the file or its
 * heading says so: registers, byte counters and volumes look just like epochs and spreadsheet days.
 *
 * @param headings of the columns; all blank for a file without headings.
 * @param hasHeadings whether the file names its columns.
 */
export function findTimes(columns: Columns, headings: readonly string[], hasHeadings: boolean): FoundTimes {
  const words = headings.map(wordsOf);
  const written = columns.flatMap((column, i) => (isWrittenTime(column) ? [i] : []));
  const apart = written.length === 0 ? partsApart(columns, words) : null;
  if (apart) return { parts: apart, others: [], formats: ['iso'], shortYears: false };
  const bare = columns.map((column, i) => bareFormat(column, words[i], i, hasHeadings));
  if (written.length === 0) {
    const candidates = bare.flatMap((format, i) => (format === null ? [] : [i]));
    if (candidates.length === 0) return { parts: new Map(), others: [], formats: [], shortYears: false };
    const dating = datingColumns(candidates, columns, words);
    return {
      ...withClock(dating, columns, words),
      others: candidates.filter((i) => !dating.includes(i)),
      formats: [bare[dating[0]]!],
      shortYears: false,
    };
  }
  const dating = datingColumns(written, columns, words);
  const others = written.filter((i) => !dating.includes(i));
  // A heading that says "time" beside a written date: read as a time, but it does not date the rows.
  const numbered = bare.flatMap((format, i) =>
    format?.startsWith('epoch') && !written.includes(i) && / (?:epoch|unix|timestamp|ts) /.test(words[i])
      ? [i]
      : [],
  );
  return {
    ...withClock(dating, columns, words),
    others: [...others, ...numbered].sort((a, b) => a - b),
    formats: writtenFormats(written.map((i) => columns[i])),
    shortYears: dating.some((i) => columns[i].shortYears > 0),
  };
}

/** One decision for the file: the orders that fit the most cells of all its time columns. */
function writtenFormats(columns: Columns): TimeFormat[] {
  const total = (format: 'iso' | 'day-first' | 'month-first' | 'period'): number =>
    columns.reduce((n, { fits }) => n + fits[format], 0);
  const best = Math.max(total('iso'), total('day-first'), total('month-first'), total('period'));
  const formats = (['iso', 'day-first', 'month-first', 'period'] as const).filter(
    (each) => total(each) === best,
  );
  const short = columns.some(({ shortYears }) => shortYears > 0);
  return formats.includes('iso') && !short ? ['iso'] : formats;
}

/** Year, month and day in columns of their own. */
function partsApart(columns: Columns, words: readonly string[]): Map<number, TimePart> | null {
  const find = (pattern: RegExp, fits: (column: ColumnSurvey) => boolean): number =>
    columns.findIndex((column, i) => column.filled > 0 && pattern.test(words[i]) && fits(column));
  const within = (low: number, high: number) => (column: ColumnSurvey) =>
    share(column.integers, column) >= NEARLY_ALL && column.low >= low && column.high <= high;
  const year = find(HEADING.year, (column) => share(column.bare.years, column) >= NEARLY_ALL);
  const month = find(
    HEADING.month,
    (column) =>
      within(1, 12)(column) || (column.dot === 0 && column.distinct !== null && column.distinct.size <= 12),
  );
  if (year < 0 || month < 0 || year === month) return null;
  const parts = new Map<number, TimePart>([
    [year, 'year'],
    [month, 'month'],
  ]);
  const day = find(HEADING.day, within(1, 31));
  if (day < 0) return parts;
  parts.set(day, 'day');
  const clock = columns.findIndex((column, i) => isClock(column) && !HEADING.duration.test(words[i]));
  const hour = find(HEADING.hour, within(0, 24));
  if (clock >= 0) parts.set(clock, 'clock');
  else if (hour >= 0) {
    parts.set(hour, 'hour');
    const minute = find(HEADING.minute, within(0, 59));
    if (minute >= 0) parts.set(minute, 'minute');
  }
  return parts;
}

/** Are year, month or day columns only parts of a date that is written out beside them? */
export function isPartOfDate(column: ColumnSurvey, heading: string): boolean {
  const words = wordsOf(heading);
  const all = (n: number): boolean => share(n, column) >= NEARLY_ALL;
  return (
    (/^ (?:year|yr|jahr|annee|ano|anno|jaar) $/.test(words) && all(column.bare.years)) ||
    (/^ (?:month|mon|monat|mois|mes|mese|maand) $/.test(words) && all(column.bare.months)) ||
    (/^ (?:day|tag|jour|dia|giorno|dag) $/.test(words) && all(column.bare.monthDays))
  );
}

/** How a column of bare numbers would be a time; null where it is not taken for one. */
function bareFormat(
  column: ColumnSurvey,
  words: string,
  index: number,
  hasHeadings: boolean,
): TimeFormat | null {
  const { bare } = column;
  const all = (n: number): boolean => share(n, column) >= NEARLY_ALL;
  if (column.filled === 0) return null;
  const named = HEADING.time.test(words);
  const epochs = bare.seconds + bare.milliseconds + bare.microseconds;
  if (all(epochs) && column.filled > 0) {
    // Without any headings only a first column is taken, and only if it goes up.
    if (!named && !(index === 0 && column.rising && !hasHeadings)) return null;
    if (all(bare.eightDigits)) return 'iso';
    if (bare.seconds === epochs) return 'epoch-seconds';
    if (bare.milliseconds === epochs) return 'epoch-milliseconds';
    return bare.microseconds === epochs ? 'epoch-microseconds' : 'epoch-mixed';
  }
  if (all(bare.eightDigits)) return named || (index === 0 && column.rising && !hasHeadings) ? 'iso' : null;
  if (all(bare.dottedMonths)) return named ? 'period' : null;
  const first = index === 0 && column.rising && !hasHeadings && column.filled > 2;
  if (all(bare.years)) return HEADING.year.test(words) || named || first ? 'period' : null;
  if (all(bare.days)) return (named && !HEADING.year.test(words)) || first ? 'serial' : null;
  return null;
}

/** Which of several time columns date the rows: one, or one for each group of columns side by side. */
function datingColumns(candidates: readonly number[], columns: Columns, words: readonly string[]): number[] {
  const sideBySide =
    candidates.length > 1 &&
    candidates.every((at, k) => {
      const until = candidates[k + 1] ?? columns.length;
      const hasValues = columns.slice(at + 1, until).some((column) => column.dot + column.comma > 0);
      return hasValues && sameKind(words[at], words[candidates[0]]);
    });
  if (sideBySide) return [...candidates];
  const likely = candidates.filter((i) => !HEADING.laterTime.test(words[i]));
  return [(likely.length > 0 ? likely : candidates)[0]];
}

/** "Time" and "Time", "Dryer 1 Time" and "Dryer 2 Time": the same heading but for numbers. */
function sameKind(a: string, b: string): boolean {
  const bare = (each: string): string => each.replace(/\d+/g, '').trim();
  if (bare(a) === bare(b)) return true;
  if (HEADING.laterTime.test(a) || HEADING.laterTime.test(b)) return false;
  const shared = a.split(' ').filter((word) => word !== '' && b.split(' ').includes(word));
  return shared.some((word) => HEADING.time.test(` ${word} `));
}

/** Adds the column with the time of day to a column of dates. */
function withClock(
  dating: readonly number[],
  columns: Columns,
  words: readonly string[],
): { parts: Map<number, TimePart> } {
  const parts = new Map<number, TimePart>(dating.map((i) => [i, 'time']));
  dating.forEach((at, k) => {
    if (columns[at].clocked > columns[at].written * 0.05) return;
    const from = k === 0 ? 0 : dating[k] + 1;
    const until = dating[k + 1] ?? columns.length;
    const clocks: number[] = [];
    for (let i = from; i < until; i++) {
      if (i !== at && isClock(columns[i]) && !HEADING.duration.test(words[i])) clocks.push(i);
    }
    const nearest = clocks.find((i) => i > at) ?? clocks[0];
    if (nearest !== undefined) parts.set(nearest, 'clock');
  });
  return { parts };
}

/** Columns whose headings are the times of their values, as where months run across a table. */
export interface TimesAcross {
  readonly columns: ReadonlyMap<number, string>;
  readonly formats: readonly TimeFormat[];
}

/** Fewer headings that look like times may be chance. */
const MIN_ACROSS = 2;

/**
 * Finds times that run across: number columns whose headings all are written times, or years that go up. Only where no
 * column dates the rows.
 *
 * @param headings as they stand in the heading row nearest to the data.
 */
export function findTimesAcross(columns: Columns, headings: readonly string[]): TimesAcross | null {
  const numeric = columns.flatMap(({ dot, comma, filled }, i) =>
    filled > 0 && Math.max(dot, comma) >= filled / 2 ? [i] : [],
  );
  const traits = new Map(numeric.map((i) => [i, timeFormatTraits(headings[i] ?? '')]));
  const written = numeric.filter((i) => traits.get(i) !== null);
  const years = numeric.filter((i) => /^(?:1[5-9]|20|21)\d\d$/.test((headings[i] ?? '').trim()));
  const found = written.length >= years.length ? written : years;
  if (found.length < MIN_ACROSS || found.length < numeric.length / 2) return null;
  const across = new Map(found.map((i) => [i, headings[i].trim()]));
  if (found === years) return { columns: across, formats: ['period'] };
  const fits = (format: TimeFormat): number =>
    found.filter((i) => traits.get(i)!.formats.includes(format)).length;
  const formats = (['iso', 'day-first', 'month-first', 'period'] as const).filter(
    (each) => fits(each) === found.length,
  );
  if (formats.length === 0) return null;
  return { columns: across, formats: formats.includes('iso') ? ['iso'] : formats };
}
