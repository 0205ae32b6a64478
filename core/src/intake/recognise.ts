import Papa from 'papaparse';
import { BeaconError } from '../errors';
import { findHeadings } from './headings';
import {
  isTotalRow,
  nameOfRow,
  SEPARATOR_WORDS,
  SEPARATORS,
  type Block,
  type FoundColumn,
  type LayoutCorrection,
  type Recognised,
  type Separator,
} from './layout';
import { isBlankCell, parseNumber, recogniseDecimal, type DecimalSign } from './numberText';
import { fittingTimeFormats, isClockCell, parseTimeCell, type TimeFormat } from './timeFormat';

const LOOK_AT_ROWS = 200;
export const MOST_COLUMNS = 10_000;
const ROWS_SHOWN = 14;

type Rows = readonly (readonly string[])[];

/** Recognises the start of a text file. See {@link recogniseRows}. */
export function recognise(text: string, correct: LayoutCorrection = {}): Recognised {
  const separator = correct.separator ?? guessSeparator(text);
  return recogniseRows(readRows(text, separator), separator, correct);
}

/**
 * Recognises preamble, headings, time columns, blocks side by side, decimal sign and number columns from the
 * first rows of a table (empty rows left out; 200 are plenty).
 *
 * @param correct what a person has already set; the rest is recognised around it.
 * @throws {BeaconError} BAD_INPUT when there is no row, no time column or no number column, or more than
 *         10,000 columns.
 */
export function recogniseRows(
  rows: Rows,
  separator: Separator | null,
  correct: LayoutCorrection = {},
): Recognised {
  if (rows.length === 0) {
    throw new BeaconError('BAD_INPUT', 'The file has no rows. Check that it is the right file.');
  }
  const width = rows.reduce((most, row) => Math.max(most, row.length), 0);
  if (width > MOST_COLUMNS) {
    throw new BeaconError(
      'BAD_INPUT',
      `A row has ${width} columns; at most ${MOST_COLUMNS.toLocaleString('en-GB')} can be read. Check the separator, or split the file.`,
      'columns',
    );
  }
  const { preambleRows, headingRows } = findHeadings(rows, correct);
  const body = rows.slice(preambleRows + headingRows).filter((row) => !isTotalRow(row));
  const from = body.length > 0 ? body : rows;
  const column = (i: number): string[] => from.map((row) => row[i] ?? '');
  const columns = Array.from({ length: width }, (_, i) => column(i));
  const times = columns.map(fittingTimeFormats);
  const timeColumns = timeColumnsOf(times, correct.timeColumn, width, rows.length, separator);
  const others = columns.flatMap((cells, i) => (timeColumns.includes(i) ? [] : cells));
  const decimal = correct.decimal ?? recogniseDecimal(others);
  const numeric = columns.map(
    (cells, i) => !timeColumns.includes(i) && mostlyNumbers(cells, decimal) && !cells.every(isTimeOfDay),
  );
  const headings = joinHeadings(rows.slice(preambleRows, preambleRows + headingRows), width);
  const found: FoundColumn[] = headings.map(({ heading, unit }, index) => ({
    index,
    heading,
    unit,
    numeric: numeric[index],
  }));
  const blocks = blocksOf(timeColumns, columns, numeric, times);
  if (!blocks.some(({ valueColumns }) => valueColumns.length > 0)) {
    throw new BeaconError(
      'BAD_INPUT',
      `No column holds numbers, only times and words. Looked at ${rows.length} rows with "${decimal}" as decimal sign.`,
      'columns',
    );
  }
  const long = longShape(columns, found, blocks);
  const shape = correct.shape ?? (long ? 'samples' : 'columns');
  const nameColumns =
    shape === 'columns' ? [] : (correct.nameColumns ?? long?.nameColumns ?? textColumns(found, blocks));
  const unitColumn = shape === 'columns' ? null : (long?.unitColumn ?? null);
  const fitting = times[timeColumns[0]];
  const timeFormat = correct.timeFormat ?? fitting[0] ?? 'iso';
  const names = shape === 'samples' ? namesOf(from, nameColumns, unitColumn) : [];
  return {
    layout: {
      separator,
      decimal,
      preambleRows,
      headingRows,
      shape,
      blocks,
      nameColumns,
      unitColumn,
      timeFormat,
      repeatedHour: correct.repeatedHour ?? 'inOrder',
    },
    columns: found,
    timeFormats: fitting,
    stepMs: usualStep(from, blocks[0], timeFormat, nameColumns),
    rows: rows.slice(0, ROWS_SHOWN),
    names,
  };
}

/** The first rows of a text, cut at a separator; empty rows left out. */
export function readRows(text: string, separator: Separator): string[][] {
  const { data } = Papa.parse<string[]>(text, {
    delimiter: separator,
    preview: LOOK_AT_ROWS,
    skipEmptyLines: 'greedy',
  });
  return data;
}

/** The separator that cuts the rows into the most columns of the same number. */
export function guessSeparator(text: string): Separator {
  let best: Separator = ',';
  let bestScore = 0;
  for (const separator of SEPARATORS) {
    const rows = readRows(text, separator);
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

function timeColumnsOf(
  times: readonly (readonly TimeFormat[])[],
  chosen: number | undefined,
  width: number,
  rows: number,
  separator: Separator | null,
): number[] {
  const all = times.flatMap((formats, i) => (formats.length > 0 ? [i] : []));
  if (chosen !== undefined && chosen < width) return [chosen, ...all.filter((i) => i > chosen)];
  if (all.length > 0) return all;
  throw new BeaconError(
    'BAD_INPUT',
    `No column holds times. Looked at ${rows} rows of ${width} columns` +
      `${separator ? `, separated by ${SEPARATOR_WORDS[separator]}` : ''}. ` +
      'One column must hold a date or a time in every row.',
    'timeColumn',
  );
}

/** Each time column with the number columns up to the next one; a time column without any belongs to none. */
function blocksOf(
  timeColumns: readonly number[],
  columns: readonly (readonly string[])[],
  numeric: readonly boolean[],
  times: readonly (readonly TimeFormat[])[],
): Block[] {
  const blocks: Block[] = [];
  const first = timeColumns[0];
  timeColumns.forEach((timeColumn, k) => {
    const until = timeColumns[k + 1] ?? columns.length;
    // Numbers may also stand before the first column of times.
    const from = timeColumn === first ? 0 : timeColumn + 1;
    const valueColumns: number[] = [];
    for (let i = from; i < until; i++) if (numeric[i]) valueColumns.push(i);
    const next = columns[timeColumn + 1];
    const clock =
      next !== undefined &&
      times[timeColumn + 1].length === 0 &&
      next.filter((c) => c.trim() !== '').length > 0
        ? next.every((cell) => cell.trim() === '' || isClockCell(cell))
        : false;
    if (valueColumns.length === 0 && timeColumn !== first) return;
    blocks.push({ timeColumn, clockColumn: clock ? timeColumn + 1 : null, valueColumns });
  });
  return blocks;
}

const NAME_HEADING =
  /metric|tag|name|point|channel|sensor|signal|series|variable|parameter|meter|messstelle|kanal/i;
const UNIT_HEADING = /unit|einheit/i;

/** One row per sample: one number column, words beside it that come again, and times that come again. */
function longShape(
  columns: readonly (readonly string[])[],
  found: readonly FoundColumn[],
  blocks: readonly Block[],
): { nameColumns: number[]; unitColumn: number | null } | null {
  if (blocks.length !== 1 || blocks[0].valueColumns.length !== 1) return null;
  const texts = textColumns(found, blocks).filter((i) => columns[i].some((cell) => cell.trim() !== ''));
  const named = texts.filter((i) => NAME_HEADING.test(found[i].heading));
  const distinct = (i: number): number => new Set(columns[i].map((cell) => cell.trim())).size;
  const rows = columns[0].length;
  const timesRepeat = distinct(blocks[0].timeColumn) < rows;
  const candidates =
    named.length > 0
      ? named
      : timesRepeat
        ? texts.filter((i) => distinct(i) > 1 && distinct(i) <= rows / 2)
        : [];
  const nameColumns = candidates.filter((i) => !UNIT_HEADING.test(found[i].heading));
  if (nameColumns.length === 0) return null;
  return { nameColumns, unitColumn: texts.find((i) => UNIT_HEADING.test(found[i].heading)) ?? null };
}

function textColumns(found: readonly FoundColumn[], blocks: readonly Block[]): number[] {
  const taken = new Set(blocks.flatMap(({ timeColumn, clockColumn }) => [timeColumn, clockColumn ?? -1]));
  return found.filter(({ index, numeric }) => !numeric && !taken.has(index)).map(({ index }) => index);
}

function namesOf(
  rows: Rows,
  nameColumns: readonly number[],
  unitColumn: number | null,
): { name: string; unit: string | null }[] {
  const names = new Map<string, string | null>();
  for (const row of rows) {
    const name = nameOfRow(row, nameColumns);
    if (name === '' || names.has(name)) continue;
    names.set(name, unitColumn === null ? null : (row[unitColumn] ?? '').trim() || null);
  }
  return [...names].map(([name, unit]) => ({ name, unit }));
}

/** Median of the times between rows of one metric, taken as wall-clock times. */
function usualStep(
  rows: Rows,
  block: Block,
  format: TimeFormat,
  nameColumns: readonly number[],
): number | null {
  const last = new Map<string, number>();
  const steps: number[] = [];
  for (const row of rows) {
    const time = parseTimeCell(timeText(row, block), format);
    if (time.kind === 'unreadable') continue;
    const t = time.kind === 'instant' ? time.t : time.wallMs;
    const name = nameOfRow(row, nameColumns);
    const before = last.get(name);
    if (before !== undefined && t !== before) steps.push(Math.abs(t - before));
    last.set(name, t);
  }
  steps.sort((a, b) => a - b);
  return steps.length === 0 ? null : steps[Math.floor(steps.length / 2)];
}

/** The time of a row as one text: date and time of day where they stand apart. */
export function timeText(cells: readonly string[], { timeColumn, clockColumn }: Block): string {
  const date = cells[timeColumn] ?? '';
  if (clockColumn === null) return date;
  const clock = (cells[clockColumn] ?? '').trim();
  return clock === '' ? date : `${date.trim().replace(/[T ]00:00(:00)?$/, '')} ${clock}`;
}

function isTimeOfDay(cell: string): boolean {
  return cell.trim() === '' || isClockCell(cell);
}

function mostlyNumbers(cells: readonly string[], decimal: DecimalSign): boolean {
  const given = cells.filter((cell) => !isBlankCell(cell));
  const numbers = given.filter((cell) => !Number.isNaN(parseNumber(cell, decimal)));
  return numbers.length > 0 && numbers.length >= given.length * 0.8;
}

const UNIT_CELL = /^[([]?[^\s()[\]]{0,12}[)\]]?$/;

/** Heading rows joined from above, names spread over the columns they are merged across. */
function joinHeadings(rows: Rows, width: number): { heading: string; unit: string | null }[] {
  const lines = rows.map((row, r) => {
    const cells = Array.from({ length: width }, (_, i) => (row[i] ?? '').trim());
    if (r === rows.length - 1) return cells;
    // A name above stands for the blank columns after it.
    for (let i = 1; i < width; i++) if (cells[i] === '' && cells[i - 1] !== '') cells[i] = cells[i - 1];
    return cells;
  });
  const units = unitRow(lines);
  const named = units ? lines.slice(0, -1) : lines;
  return Array.from({ length: width }, (_, i) => {
    const parts = [...new Set(named.map((line) => line[i]).filter((each) => each !== ''))];
    const { name, unit } = splitHeading(parts.join(' ') || `Column ${i + 1}`);
    const below = units?.[i].replace(/^[([]|[)\]]$/g, '') ?? '';
    return { heading: name, unit: unit ?? (below || null) };
  });
}

/** The last heading row, when it holds units: short cells, at least one of them in brackets or with a sign of a unit. */
function unitRow(lines: readonly (readonly string[])[]): readonly string[] | null {
  if (lines.length < 2) return null;
  const last = lines[lines.length - 1];
  const given = last.filter((cell) => cell !== '');
  const short = given.every((cell) => UNIT_CELL.test(cell));
  const telling = given.some((cell) =>
    /^[([].*[)\]]$|[°%³²/€]|^(kWh|MWh|kW|kg|t|L|l|m3|bar|V|A|Hz|h|min|s|ms)$/.test(cell),
  );
  return short && telling && given.length > 0 ? last : null;
}

function splitHeading(heading: string): { name: string; unit: string | null } {
  const found = /^(.*?)\s*[([]([^()[\]]{1,20})[)\]]\s*$/.exec(heading);
  return found && found[1] !== '' ? { name: found[1], unit: found[2] } : { name: heading, unit: null };
}
