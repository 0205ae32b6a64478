import Papa from 'papaparse';
import { guessSeparator, type Separator } from '@vivid-beacon/core/src/intakeFiles';
import type { FileLike, RowBatch, Source } from './source';
import { SCAN_BYTES, textPieces, type Encoding } from './textPieces';

/** Opens a table written as text, with a separator between its cells. */
export function openTable(
  file: FileLike,
  text: string,
  encoding: Encoding,
  separator: Separator | null,
): Source {
  const chosen = separator ?? guessSeparator(text);
  const whole = file.size <= SCAN_BYTES;
  const head = cutRows(text, chosen).rows;
  return {
    encoding,
    counted: 'line',
    sheets: [],
    sheet: null,
    separator: chosen,
    // The last row of the first part may be cut.
    head: whole ? head : head.slice(0, -1),
    whole,
    headings: null,
    parts: {},
    rows: () => tableRows(file, encoding, chosen),
  };
}

/** @param before lines of the file before this text. */
function cutRows(
  text: string,
  separator: Separator,
  before = 0,
): Omit<RowBatch, 'share'> & { readonly end: number } {
  // Files joined from several may mix line ends; with one line end given, the parser need not detect it.
  const even = !text.includes('\r')
    ? text
    : text.includes('\n')
      ? text.replace(/\r\n/g, '\n')
      : text.replace(/\r/g, '\n');
  const { data } = Papa.parse<string[]>(even, { delimiter: separator, newline: '\n' });
  // The text ends with a line end, after which the parser reports one more, empty row.
  if (data.length > 0 && text.endsWith('\n') && isEmpty(data[data.length - 1])) data.pop();
  const rows: string[][] = [];
  const lines: number[] = [];
  let line = before + 1;
  let blank = 0;
  let continued = 0;
  const quoted = text.includes('"');
  for (const cells of data) {
    const inner = quoted ? innerLineEnds(cells) : 0;
    if (isEmpty(cells)) blank += 1 + inner;
    else {
      rows.push(cells);
      lines.push(line);
      continued += inner;
    }
    line += 1 + inner;
  }
  return { rows, lines, blank, continued, end: line - 1 - before };
}

async function* tableRows(
  file: FileLike,
  encoding: Encoding,
  separator: Separator,
): AsyncGenerator<RowBatch> {
  let before = 0;
  for await (const { text, share } of textPieces(file, encoding)) {
    const { rows, lines, blank, continued, end } = cutRows(text, separator, before);
    before += end;
    yield { rows, lines, blank, continued, share };
  }
}

function isEmpty(cells: readonly string[]): boolean {
  for (const cell of cells) if (cell !== '' && cell.trim() !== '') return false;
  return true;
}

function innerLineEnds(cells: readonly string[]): number {
  let n = 0;
  for (const cell of cells) {
    for (let at = cell.indexOf('\n'); at >= 0; at = cell.indexOf('\n', at + 1)) n++;
  }
  return n;
}
