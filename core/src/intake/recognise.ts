import Papa from 'papaparse';
import { BeaconError } from '../errors';
import { isBlankCell, parseNumber, recogniseDecimal, type DecimalSign } from './numberText';
import { fittingTimeFormats, parseTimeCell, type TimeFormat } from './timeFormat';

export const SEPARATORS = [',', ';', '\t', '|'] as const;
export type Separator = (typeof SEPARATORS)[number];

export const SEPARATOR_WORDS: Readonly<Record<Separator, string>> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'upright bar',
};

/** How a file is read. Recognised from its first rows, then corrected by a person where it is wrong. */
export interface FileLayout {
  readonly separator: Separator;
  readonly decimal: DecimalSign;
  /** Rows before the first row of data that hold the names of the columns: 0 or 1. */
  readonly headingRows: 0 | 1;
  readonly timeColumn: number;
  readonly timeFormat: TimeFormat;
}

/** One column as it was found. */
export interface FoundColumn {
  readonly index: number;
  readonly heading: string;
  /** Unit written in the heading in round or square brackets: "Flow (m³/h)". */
  readonly unit: string | null;
  readonly numeric: boolean;
}

/** What was recognised, for a person to check. */
export interface Recognised {
  readonly layout: FileLayout;
  readonly columns: readonly FoundColumn[];
  /** More than one when the file cannot tell day-first from month-first. */
  readonly timeFormats: readonly TimeFormat[];
  /** Usual time between rows, ms, from the first rows; null for a single row. */
  readonly stepMs: number | null;
  /** The first rows as they stand in the file, headings included. */
  readonly rows: readonly (readonly string[])[];
}

const LOOK_AT_ROWS = 200;

/**
 * Recognises separator, decimal sign, headings, time column and number columns from the start of a file.
 *
 * @param text    the first part of the file (100 kB is plenty).
 * @param correct what a person has already set; the rest is recognised around it.
 * @throws {BeaconError} BAD_INPUT when there is no row, no time column or no number column.
 */
export function recognise(text: string, correct: Partial<FileLayout> = {}): Recognised {
  const separator = correct.separator ?? guessSeparator(text);
  const rows = readRows(text, separator);
  if (rows.length === 0)
    throw new BeaconError('BAD_INPUT', 'The file has no rows. Check that it is the right file.');
  const width = Math.max(...rows.map((row) => row.length));
  const body = rows.slice(1).length > 0 ? rows.slice(1) : rows;
  const column = (i: number, from: readonly (readonly string[])[]): string[] =>
    from.map((row) => row[i] ?? '');

  const times = Array.from({ length: width }, (_, i) => fittingTimeFormats(column(i, body)));
  const timeColumn = correct.timeColumn ?? times.findIndex((formats) => formats.length > 0);
  if (timeColumn < 0 || timeColumn >= width) {
    throw new BeaconError(
      'BAD_INPUT',
      `No column holds times. Looked at ${rows.length} rows of ${width} columns, separated by ${SEPARATOR_WORDS[separator]}. ` +
        'One column must hold a date or a time in every row.',
      'timeColumn',
    );
  }
  const others = Array.from({ length: width }, (_, i) => i).filter((i) => i !== timeColumn);
  const decimal = correct.decimal ?? recogniseDecimal(others.flatMap((i) => column(i, body)));
  const isNumeric = (i: number): boolean => mostlyNumbers(column(i, body), decimal);
  const firstIsData =
    fittingTimeFormats([rows[0][timeColumn] ?? '']).length > 0 ||
    others.some((i) => isNumeric(i) && !Number.isNaN(parseNumber(rows[0][i] ?? '', decimal)));
  const headingRows = correct.headingRows ?? (firstIsData ? 0 : 1);

  const columns = Array.from({ length: width }, (_, index) => {
    const written = headingRows === 1 ? (rows[0][index] ?? '').trim() : '';
    const { name, unit } = splitHeading(written || `Column ${index + 1}`);
    return { index, heading: name, unit, numeric: index !== timeColumn && isNumeric(index) };
  });
  if (!columns.some((each) => each.numeric)) {
    throw new BeaconError(
      'BAD_INPUT',
      `No column holds numbers, only times and words. Looked at ${rows.length} rows with "${decimal}" as decimal sign.`,
      'columns',
    );
  }
  const fitting = times[timeColumn];
  const timeFormat = correct.timeFormat ?? fitting[0] ?? 'iso';
  return {
    layout: { separator, decimal, headingRows, timeColumn, timeFormat },
    columns,
    timeFormats: fitting,
    stepMs: usualStep(column(timeColumn, body), timeFormat),
    rows: rows.slice(0, 12),
  };
}

function readRows(text: string, separator: Separator): string[][] {
  const { data } = Papa.parse<string[]>(text, {
    delimiter: separator,
    preview: LOOK_AT_ROWS,
    skipEmptyLines: 'greedy',
  });
  return data;
}

/** Median of the times between rows, taken as wall-clock times. */
function usualStep(cells: readonly string[], format: TimeFormat): number | null {
  const times = cells.flatMap((cell) => {
    const time = parseTimeCell(cell, format);
    return time.kind === 'unreadable' ? [] : [time.kind === 'instant' ? time.t : time.wallMs];
  });
  const steps = times.slice(1).map((t, i) => Math.abs(t - times[i]));
  const positive = steps.filter((step) => step > 0).sort((a, b) => a - b);
  return positive.length === 0 ? null : positive[Math.floor(positive.length / 2)];
}

/** The separator that cuts the first rows into the most columns of the same number. */
function guessSeparator(text: string): Separator {
  let best: Separator = ',';
  let bestScore = 0;
  for (const separator of SEPARATORS) {
    const rows = readRows(text, separator);
    const width = rows[Math.min(1, rows.length - 1)]?.length ?? 0;
    const even = rows.filter((row) => row.length === width).length / Math.max(1, rows.length);
    const score = width > 1 ? even * 100 + Math.min(width, 50) / 100 : 0;
    if (score > bestScore) {
      best = separator;
      bestScore = score;
    }
  }
  return best;
}

function mostlyNumbers(cells: readonly string[], decimal: DecimalSign): boolean {
  const given = cells.filter((cell) => !isBlankCell(cell));
  const numbers = given.filter((cell) => !Number.isNaN(parseNumber(cell, decimal)));
  return numbers.length > 0 && numbers.length >= given.length * 0.9;
}

function splitHeading(heading: string): { name: string; unit: string | null } {
  const found = /^(.*?)\s*[([]([^()[\]]{1,20})[)\]]\s*$/.exec(heading);
  return found && found[1] !== '' ? { name: found[1], unit: found[2] } : { name: heading, unit: null };
}
