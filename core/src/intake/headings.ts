import { isTotalRow, type LayoutCorrection } from './layout';
import { isBlankCell, parseNumber } from './numberText';
import { fittingTimeFormats } from './timeFormat';

type Rows = readonly (readonly string[])[];

const MOST_HEADING_ROWS = 3;
const MOST_PREAMBLE = 60;
/** So many rows after the first of the data are looked at to be sure. */
const AHEAD = 5;

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
  while (headingRows < MOST_HEADING_ROWS && headingRows < first && isHeading(rows, first, headingRows))
    headingRows++;
  return { preambleRows: first - headingRows, headingRows };
}

function clamp(n: number): number {
  return Math.max(0, Math.min(MOST_HEADING_ROWS, n));
}

/** The first row that looks like data and is followed by such rows. */
function firstDataRow(rows: Rows): number {
  for (let i = 0; i < Math.min(rows.length, MOST_PREAMBLE); i++) {
    if (!looksLikeData(rows[i])) continue;
    const next = rows.slice(i + 1, i + 1 + AHEAD).filter((row) => !isTotalRow(row));
    if (next.filter(looksLikeData).length >= next.length * 0.6) return i;
  }
  return rows.length > 1 ? 1 : 0;
}

/** A time and, beside it, a number or something that says "nothing measured". */
function looksLikeData(row: readonly string[]): boolean {
  const time = row.findIndex((cell) => fittingTimeFormats([cell]).length > 0);
  if (time < 0) return false;
  return row.some(
    (cell, i) =>
      i !== time &&
      (isBlankCell(cell) || !Number.isNaN(parseNumber(cell, '.')) || !Number.isNaN(parseNumber(cell, ','))),
  );
}

/** Row `first - 1 - above` is a heading: words in at least two columns (in one, if there is only one). */
function isHeading(rows: Rows, first: number, above: number): boolean {
  const row = rows[first - 1 - above];
  const given = row.filter((cell) => cell.trim() !== '');
  const width = rows[first]?.length ?? 1;
  if (given.length < Math.min(2, width)) return false;
  const numbers = given.filter((cell) => !Number.isNaN(parseNumber(cell, '.')));
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
