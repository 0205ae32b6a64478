import Papa from 'papaparse';
import { BeaconError } from '../errors';
import { findHeadings, joinHeadings, type Heading } from './headings';
import { HEADING, wordsOf } from './headingWords';
import { findNames } from './findNames';
import {
  findTimes,
  findTimesAcross,
  isClock,
  isPartOfDate,
  isWrittenTime,
  type FoundTimes,
  type TimesAcross,
} from './findTimes';
import {
  COUNT_COLUMN,
  isTimePart,
  SEPARATORS,
  type Block,
  type ColumnPart,
  type FoundColumn,
  type LayoutCorrection,
  type Question,
  type Recognised,
  type Separator,
  type TimePart,
} from './layout';
import type { DecimalSign } from './numberText';
import { emptyColumn, tableSurveyor, type ColumnSurvey, type TableSurvey } from './survey';

const LOOK_AT_ROWS = 200;
export const MOST_COLUMNS = 10_000;
const ROWS_SHOWN = 14;
/** A column with fewer numbers than this is one of words. */
const FAIR_SHARE = 0.5;

type Rows = readonly (readonly string[])[];

/** Recognises a short text file that is at hand whole. See {@link recogniseTable}. */
export function recognise(text: string, correct: LayoutCorrection = {}): Recognised {
  const separator = correct.separator ?? guessSeparator(text);
  return recogniseRows(readRows(text, separator), separator, correct);
}

/** Recognises a table all of whose rows are at hand. See {@link recogniseTable}. */
export function recogniseRows(
  rows: Rows,
  separator: Separator | null,
  correct: LayoutCorrection = {},
): Recognised {
  const { preambleRows, headingRows } = findHeadings(rows, correct);
  const surveyor = tableSurveyor();
  for (const row of rows.slice(preambleRows + headingRows)) surveyor.add(row);
  return recogniseTable({ head: rows, separator, survey: surveyor.result(), headings: null }, correct);
}

/** A table as far as it is known. */
export interface SeenTable {
  /** The first rows as they stand; where the headings are known already, rows of data only. */
  readonly head: Rows;
  readonly separator: Separator | null;
  /** Counts over all rows of data. */
  readonly survey: TableSurvey;
  /** Known headings, of a format that names its columns itself (JSON); null to look for them in `head`. */
  readonly headings: readonly string[] | null;
}

/**
 * Recognises what each column of a table is for: headings, times, names, units, values, decimal sign. Columns are
 * judged by all of the rows; what cannot be told is asked, and nothing stops a person from setting every part.
 *
 * @param correct what a person has already set; the rest is recognised around it.
 * @throws {BeaconError} BAD_INPUT for a table of no rows or more than 10,000 columns.
 */
export function recogniseTable(table: SeenTable, correct: LayoutCorrection = {}): Recognised {
  const { head, separator, survey } = table;
  if (head.length === 0 && table.headings === null) {
    throw new BeaconError('BAD_INPUT', 'The file has no rows. Check that it is the right file.');
  }
  const found = table.headings === null ? findHeadings(head, correct) : { preambleRows: 0, headingRows: 0 };
  const { preambleRows, headingRows } = found;
  const headingLines = head.slice(preambleRows, preambleRows + headingRows);
  const widths = widthsOf(survey, headingLines, table.headings, correct.headingOffset);
  const { width } = widths;
  if (width > MOST_COLUMNS) {
    throw new BeaconError(
      'BAD_INPUT',
      `A row has ${width} columns; at most ${MOST_COLUMNS.toLocaleString('en-GB')} can be read. Check the separator, or split the file.`,
      'columns',
    );
  }
  const columns = Array.from({ length: width }, (_, i) => survey.columns[i] ?? BLANK_COLUMN);
  const offset = correct.headingOffset ?? (widths.offset === 1 && namesFit(columns, headingLines) ? 1 : 0);
  const headings: readonly Heading[] = table.headings
    ? joinHeadings([table.headings], width)
    : joinHeadings(headingLines, width, offset);
  const names = headings.map(({ heading }) => heading);
  const hasHeadings = headingRows > 0 || table.headings !== null;
  const byColumn = findTimes(columns, hasHeadings ? names : names.map(() => ''), hasHeadings);
  const lowest = headingLines[headingLines.length - 1] ?? table.headings ?? [];
  const across =
    byColumn.parts.size === 0 && correct.fixedTime === undefined && !correctsTime(correct)
      ? findTimesAcross(columns, lowest)
      : null;
  const times = across ? { ...byColumn, formats: across.formats } : byColumn;
  const decimal = correct.decimal ?? decimalOf(columns, times);
  const body = head.slice(preambleRows + headingRows);
  const parts = partsOf(columns, names, times, decimal, body, across);
  for (const [index, part] of Object.entries(correct.parts ?? {})) {
    if (Number(index) < width) parts.parts[Number(index)] = part;
  }
  const corrected = correct.parts !== undefined;
  const blocks = across
    ? blocksAcross(parts.parts, across)
    : blocksOf(parts.parts, correct.events?.of === 'count');
  const timeFormat = correct.timeFormat ?? formatOf(columns, parts.parts, times);
  const unitColumn = parts.parts.indexOf('unit');
  const nameColumns = indexesOf(parts.parts, 'name');
  return {
    layout: {
      separator,
      decimal,
      preambleRows,
      headingRows,
      width,
      headings: names,
      units: columns.map(usualSign),
      blocks,
      nameColumns,
      unitColumn: unitColumn < 0 ? null : unitColumn,
      carriedDown: parts.carriedDown.filter((i) => nameColumns.includes(i) || isTimePart(parts.parts[i])),
      durations: indexesOf(parts.parts, 'value').filter((i) => isDuration(columns[i])),
      timeFormat,
      century: correct.century ?? null,
      fixedTime: correct.fixedTime ?? null,
      repeatedHour: correct.repeatedHour ?? 'inOrder',
      collisions: correct.collisions ?? null,
      events: correct.events ?? null,
      totals: correct.totals ?? 'leftOut',
    },
    columns: columns.map((column, index) =>
      foundColumn(column, index, headings[index], parts, times, decimal, across),
    ),
    questions: questionsOf({
      survey,
      parts: parts.parts,
      doubt: parts.doubt,
      blocks,
      times,
      correct,
      corrected,
      widths,
      offset,
      hasHeadings,
    }),
    timeFormats:
      correct.timeFormat === undefined || times.formats.includes(correct.timeFormat) ? times.formats : [],
    shortYears: times.shortYears,
    rows: head.slice(0, preambleRows + headingRows + ROWS_SHOWN),
  };
}

const BLANK_COLUMN: ColumnSurvey = emptyColumn();

interface Widths {
  /** Columns of the table. */
  readonly width: number;
  /** By how many cells most rows are longer than the headings. */
  readonly offset: number;
}

function widthsOf(
  { widths }: TableSurvey,
  headingLines: Rows,
  known: readonly string[] | null,
  given: number | undefined,
): Widths {
  if (known) return { width: known.length, offset: 0 };
  const usual = [...widths].sort((a, b) => b[1] - a[1] || b[0] - a[0])[0]?.[0] ?? 0;
  const filled = (row: readonly string[]): number => {
    let n = row.length;
    while (n > 0 && row[n - 1].trim() === '') n--;
    return n;
  };
  const named = headingLines.reduce((most, row) => Math.max(most, filled(row)), 0);
  if (headingLines.length === 0) return { width: usual, offset: 0 };
  return { width: Math.max(named + (given ?? 0), usual), offset: Math.max(0, usual - named) };
}

/** Row names without a heading before the first column: then "time" stands over the times only when shifted by one. */
function namesFit(columns: readonly ColumnSurvey[], headingLines: Rows): boolean {
  const last = headingLines[headingLines.length - 1] ?? [];
  return last.some(
    (heading, i) =>
      HEADING.time.test(wordsOf(heading)) &&
      columns[i + 1] !== undefined &&
      isWrittenTime(columns[i + 1]) &&
      !isWrittenTime(columns[i]),
  );
}

function decimalOf(columns: readonly ColumnSurvey[], times: FoundTimes): DecimalSign {
  let commas = 0;
  columns.forEach((column, i) => {
    if (times.parts.has(i) || isWrittenTime(column)) return;
    commas += column.onlyComma - column.onlyDot;
  });
  return commas > 0 ? ',' : '.';
}

function isDuration(column: ColumnSurvey): boolean {
  return column.durations > 0 && column.durations >= column.filled * FAIR_SHARE;
}

function numbersOf(column: ColumnSurvey, decimal: DecimalSign): number {
  if (isDuration(column)) return column.durations;
  return decimal === '.' ? column.dot : column.comma;
}

interface Parts {
  readonly parts: ColumnPart[];
  readonly carriedDown: readonly number[];
  readonly partsOfDate: readonly number[];
  readonly doubt: string | null;
}

function partsOf(
  columns: readonly ColumnSurvey[],
  headings: readonly string[],
  times: FoundTimes,
  decimal: DecimalSign,
  body: Rows,
  across: TimesAcross | null,
): Parts {
  const parts: ColumnPart[] = columns.map(() => 'leftOut');
  for (const [i, part] of times.parts) parts[i] = part;
  const dated = [...times.parts.values()].some((part) => part === 'time');
  const partsOfDate: number[] = [];
  const texts: number[] = [];
  columns.forEach((column, i) => {
    if (times.parts.has(i) || times.others.includes(i) || column.filled === 0) return;
    const numbers = numbersOf(column, decimal);
    if (numbers > 0 && numbers >= column.filled * FAIR_SHARE) {
      if (dated && isPartOfDate(column, headings[i])) partsOfDate.push(i);
      else parts[i] = 'value';
    } else texts.push(i);
  });
  const unit = texts.find((i) => HEADING.unit.test(wordsOf(headings[i])) && isShort(columns[i]));
  if (unit !== undefined) parts[unit] = 'unit';
  if (across) {
    columns.forEach((_, i) => {
      if (parts[i] === 'value' && !across.columns.has(i)) parts[i] = 'leftOut';
    });
    // Each row is a series of its own: all words tell it apart.
    for (const i of texts) if (i !== unit && !HEADING.remark.test(wordsOf(headings[i]))) parts[i] = 'name';
    return { parts, carriedDown: [], partsOfDate, doubt: null };
  }
  const values = indexesOf(parts, 'value');
  const codes = values.filter((i) => {
    const { integers, filled, distinct } = columns[i];
    return integers === filled && distinct !== null && distinct.size <= Math.max(50, filled / 10);
  });
  const timeColumns = [...times.parts.keys()];
  const carriedTimes = timeColumns.filter(
    (i) =>
      times.parts.get(i) === 'time' &&
      columns[i].blank >= (columns[i].blank + columns[i].filled) * 0.3 &&
      timeColumns.length > 1,
  );
  const found = findNames({
    rows: body,
    headings,
    timeColumns,
    valueColumns: values,
    textColumns: texts.filter((i) => i !== unit),
    codeColumns: codes.length < values.length ? codes : codes.slice(0, -1),
  });
  for (const i of found.nameColumns) parts[i] = 'name';
  if (found.nameColumns.length === 0 && unit !== undefined) parts[unit] = 'leftOut';
  return { parts, carriedDown: [...found.carriedDown, ...carriedTimes], partsOfDate, doubt: found.doubt };
}

function isShort({ distinct }: ColumnSurvey): boolean {
  return distinct !== null && distinct.size <= 50 && [...distinct].every((each) => each.length <= 16);
}

function indexesOf(parts: readonly ColumnPart[], part: ColumnPart): number[] {
  return parts.flatMap((each, i) => (each === part ? [i] : []));
}

/** Has a person said which column dates the rows? */
function correctsTime({ parts = {} }: LayoutCorrection): boolean {
  return Object.values(parts).some(isTimePart);
}

/** A group for each column whose heading is the time of its values. */
function blocksAcross(parts: readonly ColumnPart[], { columns }: TimesAcross): Block[] {
  return [...columns]
    .filter(([column]) => parts[column] === 'value')
    .map(([column, written]) => ({ timeColumns: [], timeParts: [], valueColumns: [column], written }));
}

/** Groups value columns under the times that date them: one group, or one for each column of part "time". */
function blocksOf(parts: readonly ColumnPart[], counted: boolean): Block[] {
  const timed = parts.flatMap((part, i) => (isTimePart(part) ? [i] : []));
  const values = counted ? [COUNT_COLUMN] : indexesOf(parts, 'value');
  const whole = indexesOf(parts, 'time');
  if (whole.length <= 1) {
    return [{ timeColumns: timed, timeParts: timed.map((i) => parts[i] as TimePart), valueColumns: values }];
  }
  return whole.map((at, k) => {
    const from = k === 0 ? -1 : at;
    const until = whole[k + 1] ?? Infinity;
    const inside = (i: number): boolean => i >= from && i < until;
    const timeColumns = timed.filter((i) => (k === 0 ? i < until : inside(i)));
    return {
      timeColumns,
      timeParts: timeColumns.map((i) => parts[i] as TimePart),
      valueColumns: values.filter(inside),
    };
  });
}

function formatOf(
  columns: readonly ColumnSurvey[],
  parts: readonly ColumnPart[],
  times: FoundTimes,
): FoundTimes['formats'][number] {
  if (times.formats.length > 0) return times.formats[0];
  const chosen = columns[parts.indexOf('time')];
  if (chosen === undefined) return 'iso';
  const { bare, filled } = chosen;
  if (bare.years >= filled * 0.9) return 'period';
  if (bare.days >= filled * 0.9) return 'serial';
  return bare.seconds + bare.milliseconds + bare.microseconds >= filled * 0.9 ? 'epoch-mixed' : 'iso';
}

function foundColumn(
  column: ColumnSurvey,
  index: number,
  { heading, unit }: Heading,
  { parts, carriedDown, partsOfDate }: Parts,
  times: FoundTimes,
  decimal: DecimalSign,
  across: TimesAcross | null,
): FoundColumn {
  const part = parts[index];
  const numbers = isWrittenTime(column) ? 0 : numbersOf(column, decimal);
  const sign = usualSign(column);
  return {
    index,
    heading,
    unit: part === 'value' ? (sign ?? (isDuration(column) ? 's' : unit)) : unit,
    part,
    note: noteOf(),
    numbers,
    words: column.filled - numbers,
    blank: column.blank,
    errors: column.errors,
    example: column.example,
  };

  function noteOf(): string {
    if (carriedDown.includes(index)) return 'blank cells repeat the one above';
    if (part === 'value' && across?.columns.has(index)) return 'its heading is the time of its values';
    if (part === 'value' && isDuration(column)) return 'lengths of time, in seconds';
    if (part !== 'leftOut') return '';
    if (column.filled === 0) return column.errors > 0 ? 'only error cells' : 'blank so far';
    if (times.others.includes(index)) return 'read as time, does not date the rows';
    if (partsOfDate.includes(index)) return 'part of the date';
    if (isClock(column)) return 'time of day';
    if (numbers === 0) return 'not numbers';
    return numbers < column.filled * FAIR_SHARE
      ? `mostly not numbers: ${numbers} of ${column.filled} are`
      : '';
  }
}

/** The sign or unit that stands beside most numbers of a column. */
function usualSign(column: ColumnSurvey): string | null {
  const most = [...column.signs].sort((a, b) => b[1] - a[1])[0];
  return most && most[1] >= column.filled / 2 ? most[0] : null;
}

function questionsOf({
  survey,
  parts,
  doubt,
  blocks,
  times,
  correct,
  corrected,
  widths,
  offset,
  hasHeadings,
}: {
  readonly survey: TableSurvey;
  readonly parts: readonly ColumnPart[];
  readonly doubt: string | null;
  readonly blocks: readonly Block[];
  readonly times: FoundTimes;
  readonly correct: LayoutCorrection;
  readonly corrected: boolean;
  readonly widths: Widths;
  readonly offset: number;
  readonly hasHeadings: boolean;
}): Question[] {
  if (survey.rows === 0) {
    return [
      {
        about: 'rows',
        words: hasHeadings
          ? 'The file has headings but no rows below them. Export it again with data, or correct which row is the heading.'
          : 'The file has no rows of data.',
      },
    ];
  }
  const questions: Question[] = [];
  if (hasHeadings && widths.offset > 0 && offset === 0 && correct.headingOffset === undefined && !corrected) {
    questions.push({
      about: 'headings',
      words: `Most rows have ${widths.width} cells, but there are only ${widths.width - widths.offset} headings. Say which columns have none.`,
    });
  }
  const dated = blocks.some(({ timeColumns, written }) => timeColumns.length > 0 || written !== undefined);
  if (
    (!dated || (blocks[0].written === undefined && blocks[0].timeParts.every((part) => part === 'clock'))) &&
    correct.fixedTime === undefined
  ) {
    questions.push({
      about: 'time',
      words:
        'No column says when its rows were measured. Choose the column of the time, or give one time for all rows.',
    });
  }
  if (blocks.every(({ valueColumns }) => valueColumns.length === 0)) {
    questions.push({
      about: 'values',
      words: 'No column holds numbers. Choose a column of values, or count the rows in periods.',
    });
  }
  if (
    doubt !== null &&
    !corrected &&
    !correct.events &&
    correct.fixedTime === undefined &&
    questions.length === 0
  ) {
    questions.push({
      about: 'names',
      words: `${doubt} Say which columns name the series, or confirm that all rows belong to one.`,
    });
  }
  if (parts.includes('time') || blocks.some(({ written }) => written !== undefined)) {
    if (times.formats.length > 1 && correct.timeFormat === undefined) {
      questions.push({
        about: 'dayOrMonth',
        words: 'The dates fit several orders. Say which number is the day.',
      });
    }
    if (times.shortYears && correct.century === undefined) {
      questions.push({ about: 'century', words: 'Years have two digits. Say which century they lie in.' });
    }
  }
  return questions;
}

/** The first rows of a text, cut at a separator; empty rows left out. */
export function readRows(text: string, separator: Separator, most = Infinity): string[][] {
  const { data } = Papa.parse<string[]>(text, {
    delimiter: separator,
    preview: Number.isFinite(most) ? most : 0,
    skipEmptyLines: 'greedy',
  });
  return data;
}

/** The separator that cuts the rows into the most columns of the same number. */
export function guessSeparator(text: string): Separator {
  let best: Separator = ',';
  let bestScore = 0;
  for (const separator of SEPARATORS) {
    const rows = readRows(text, separator, LOOK_AT_ROWS);
    const widths = new Map<number, number>();
    for (const row of rows) widths.set(row.length, (widths.get(row.length) ?? 0) + 1);
    for (const [width, count] of widths) {
      if (width < 2) continue;
      // A decimal comma cuts as evenly as a separator does; pieces that are only digits give it away.
      const pieces = rows.filter((row) => row.length === width).slice(0, 20);
      const split = pieces.flat().filter((cell) => /^\d{4}-\d\d-\d\d|:\d\d|[A-Za-z]/.test(cell)).length;
      const score = (count / rows.length) * 100 + Math.min(width, 50) / 100 + (split > 0 ? 5 : 0);
      if (score > bestScore) {
        best = separator;
        bestScore = score;
      }
    }
  }
  return best;
}
