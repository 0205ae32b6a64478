import { BeaconError } from '../errors';
import { blocksAcross, blocksOf } from './blocks';
import { decimalOf, isDuration, usualSign } from './columnFacts';
import { foundColumn, indexesOf, columnPartsOf } from './columnParts';
import { findTimes, findTimesAcross, isWrittenTime, type FoundTimes } from './findTimes';
import { findHeadings, joinHeadings, type Heading } from './headings';
import { HEADING, wordsOf } from './headingWords';
import {
  isTimePart,
  type ColumnPart,
  type LayoutCorrection,
  type Recognised,
  type Separator,
} from './layout';
import { questionsOf, type Widths } from './questions';
import { guessSeparator, readRows } from './separator';
import { emptyColumn, tableSurveyor, type ColumnSurvey, type TableSurvey } from './survey';

export const MAX_COLUMNS = 10_000;
const ROWS_SHOWN = 14;

type Rows = readonly (readonly string[])[];

/** Recognises a short text file given as a whole. See {@link recogniseTable}. */
export function recognise(text: string, correct: LayoutCorrection = {}): Recognised {
  const separator = correct.separator ?? guessSeparator(text);
  return recogniseRows(readRows(text, separator), separator, correct);
}

/** Recognises a table with all of its rows given. See {@link recogniseTable}. */
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
 * Recognises what each column of a table is for: headings, times, names, units, values, decimal sign. Columns
 * are judged by all of the rows; what is ambiguous is asked, and a person can set every part.
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
  if (width > MAX_COLUMNS) {
    throw new BeaconError(
      'BAD_INPUT',
      `A row has ${width} columns; at most ${MAX_COLUMNS.toLocaleString('en-GB')} can be read. Check the separator, or split the file.`,
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
  const parts = columnPartsOf(columns, names, times, decimal, body, across);
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
      stamped: correct.stamped ?? null,
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

/** Whether a person has said which column dates the rows. */
function correctsTime({ parts = {} }: LayoutCorrection): boolean {
  return Object.values(parts).some(isTimePart);
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
