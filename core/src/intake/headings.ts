import { parseDuration } from './durationText';
import type { LayoutCorrection } from './layout';
import { isBlankCell, isErrorCell, readSignedNumber } from './numberText';
import { timeFormatTraits } from './timeFormat';

type Rows = readonly (readonly string[])[];
type CellKind = 'blank' | 'time' | 'number' | 'word';

const MAX_HEADING_ROWS = 3;
const MAX_PREAMBLE = 100;

function kindOf(cell: string | undefined): CellKind {
  if (cell === undefined || isBlankCell(cell) || cell.trim() === '' || isErrorCell(cell)) return 'blank';
  if (!/\d/.test(cell)) return 'word';
  if (timeFormatTraits(cell) !== null) return 'time';
  if (readSignedNumber(cell, '.') || readSignedNumber(cell, ',')) return 'number';
  return Number.isNaN(parseDuration(cell)) ? 'word' : 'time';
}

/** Where the data of a table begins: how many rows lie above its headings, and how many are headings. */
export function findHeadings(
  rows: Rows,
  correct: Pick<LayoutCorrection, 'preambleRows' | 'headingRows'>,
): { preambleRows: number; headingRows: number } {
  if (correct.preambleRows !== undefined && correct.headingRows !== undefined) {
    return { preambleRows: correct.preambleRows, headingRows: correct.headingRows };
  }
  const first = firstDataRow(rows);
  if (correct.preambleRows !== undefined) {
    return { preambleRows: correct.preambleRows, headingRows: clamp(first - correct.preambleRows) };
  }
  if (correct.headingRows !== undefined) {
    return { preambleRows: Math.max(0, first - correct.headingRows), headingRows: correct.headingRows };
  }
  let headingRows = 0;
  while (headingRows < MAX_HEADING_ROWS && headingRows < first && isHeading(rows, first, headingRows))
    headingRows++;
  return { preambleRows: first - headingRows, headingRows };
}

function clamp(n: number): number {
  return Math.max(0, Math.min(MAX_HEADING_ROWS, n));
}

/**
 * The first row that holds a time where the rows below have theirs, or numbers where they have numbers.
 * The lower half of the rows that are known tells what the columns hold.
 */
function firstDataRow(rows: Rows): number {
  if (rows.length === 0) return 0;
  if (rows.length === 1) return rows[0].some((cell) => /time|number/.test(kindOf(cell))) ? 0 : 1;
  const lower = rows.slice(Math.floor(rows.length / 2)).slice(0, 200);
  const width = lower.reduce((most, row) => Math.max(most, row.length), 0);
  const kinds = Array.from({ length: width }, (_, i) => usualKind(lower, i));
  const times = kinds.flatMap((kind, i) => (kind === 'time' ? [i] : []));
  const numbers = kinds.flatMap((kind, i) => (kind === 'number' ? [i] : []));
  if (times.length === 0 && numbers.length === 0) return 1;
  const isData = (row: readonly string[]): boolean =>
    times.length > 0
      ? times.some((i) => kindOf(row[i]) === 'time')
      : numbers.filter((i) => kindOf(row[i]) === 'number').length >= numbers.length / 2;
  const first = rows.slice(0, MAX_PREAMBLE).findIndex(isData);
  if (first < 0) return 1;
  // A row with numbers but a spoilt time is data if headings stand above it.
  const spoilt = first > 1 && hasNumbers(rows[first - 1], numbers) && !hasNumbers(rows[first - 2], numbers);
  return spoilt ? first - 1 : first;
}

function hasNumbers(row: readonly string[], columns: readonly number[]): boolean {
  return (
    columns.length > 0 && columns.filter((i) => kindOf(row[i]) === 'number').length >= columns.length / 2
  );
}

function usualKind(rows: Rows, column: number): CellKind {
  const counts = { blank: 0, time: 0, number: 0, word: 0 };
  for (const row of rows) counts[kindOf(row[column])]++;
  const filled = rows.length - counts.blank;
  if (filled === 0 || filled < rows.length / 2) return 'blank';
  if (counts.time >= filled / 2) return 'time';
  return counts.number >= filled / 2 ? 'number' : 'word';
}

/** Row `first - 1 - above` is a heading: words in at least two columns (in one, if there is only one). */
function isHeading(rows: Rows, first: number, above: number): boolean {
  const row = rows[first - 1 - above];
  const given = row.filter((cell) => cell.trim() !== '');
  const width = rows[first]?.length ?? row.length;
  if (given.length < Math.min(2, width)) return false;
  const numbers = given.filter((cell) => kindOf(cell) === 'number');
  if (numbers.length * 2 > given.length && above > 0) return false;
  // A note such as "Site: Quayside" has fewer cells than the table below it, and text with a colon in front.
  if (above > 0 && given.length <= 2 && /:\s*$/.test(given[0].trim())) return false;
  if (above > 0 && isNote(row, rows[first - above], width)) return false;
  return above === 0 || row.length >= Math.min(width, 2);
}

/**
 * A name and its value, "Site;Quayside", above a wider table: two cells at the left and nothing beside them, while
 * the headings below name the first column themselves. A heading over several columns leaves that to the row below.
 */
function isNote(row: readonly string[], below: readonly string[], width: number): boolean {
  const given = row.flatMap((cell, i) => (cell.trim() === '' ? [] : [i]));
  return (
    width >= 3 && given.length === 2 && given[0] === 0 && given[1] === 1 && (below[0] ?? '').trim() !== ''
  );
}

const UNIT_CELL = /^[([]?[^\s()[\]]{0,12}[)\]]?$/;

/** A heading with the unit that stands in it or below it. */
export interface Heading {
  readonly heading: string;
  readonly unit: string | null;
}

/**
 * Heading rows joined from above, names spread over the columns they are merged across.
 *
 * @param offset how many columns before the first heading have none.
 */
export function joinHeadings(rows: Rows, width: number, offset = 0): Heading[] {
  const lines = rows.map((row, r) => {
    const cells = Array.from({ length: width }, (_, i) => (row[i - offset] ?? '').trim());
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
