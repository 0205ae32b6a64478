import Papa from 'papaparse';
import { BeaconError } from '@vivid-beacon/core';
import {
  decodeText,
  exposedName,
  guessSeparator,
  isArchive,
  ndjsonTable,
  readOpenMetrics,
  readRows,
  splitRows,
  textKind,
  type Separator,
} from '@vivid-beacon/core/src/intakeFiles';
import type { FileLike, RowBatch, Source } from './source';

const LOOK_BYTES = 256 * 1024;
const PIECE_BYTES = 1024 * 1024;
/** OpenMetrics text is judged whole, by its end. */
const MOST_EXPOSITION_BYTES = 50_000_000;
const DECODER = {
  'UTF-8': 'utf-8',
  'UTF-16 LE': 'utf-16le',
  'UTF-16 BE': 'utf-16be',
  'Windows-1252': 'windows-1252',
} as const;
type Encoding = keyof typeof DECODER;

/** Is this a spreadsheet, by its first bytes? */
export async function isSheetFile(file: FileLike): Promise<boolean> {
  return isArchive(new Uint8Array(await file.slice(0, 4).arrayBuffer()));
}

/** Decodes the first part of the file; a character cut at its end is left out. */
async function firstPart(file: FileLike): Promise<{ text: string; encoding: Encoding }> {
  const bytes = new Uint8Array(await file.slice(0, LOOK_BYTES).arrayBuffer());
  if (file.size <= LOOK_BYTES) return decodeText(bytes);
  for (let cut = 0; cut < 4; cut++) {
    const decoded = decodeText(bytes.subarray(0, bytes.length - cut));
    if (decoded.encoding !== 'Windows-1252') return decoded;
  }
  return decodeText(bytes);
}

/** Opens a text file: a table, lines of JSON or OpenMetrics text. @throws {BeaconError} for one that is no text. */
export async function openText(file: FileLike, separator: Separator | null): Promise<Source> {
  const { text, encoding } = await firstPart(file);
  const kind = textKind(text);
  if (kind === 'ndjson') return openNdjson(file, text, encoding);
  if (kind === 'openmetrics') return openExposition(file, encoding);
  const chosen = separator ?? guessSeparator(text);
  return {
    encoding,
    sheets: [],
    sheet: null,
    separator: chosen,
    head: readRows(text, chosen),
    rows: () => tableRows(file, encoding, chosen),
  };
}

/** The text of a file piece by piece, each ending with a whole row. */
async function* pieces(
  file: FileLike,
  encoding: Encoding,
): AsyncGenerator<{ text: string; share: number; last: boolean }> {
  const decoder = new TextDecoder(DECODER[encoding]);
  let rest = '';
  for (let at = 0; at < file.size; at += PIECE_BYTES) {
    const bytes = await file.slice(at, at + PIECE_BYTES).arrayBuffer();
    const last = at + PIECE_BYTES >= file.size;
    const piece = splitRows(rest + decoder.decode(bytes, { stream: !last }) + (last ? '\n' : ''));
    rest = piece.rest;
    yield { text: piece.whole, share: Math.min(1, (at + PIECE_BYTES) / file.size), last };
  }
  if (rest.trim() !== '') {
    throw new BeaconError(
      'BAD_INPUT',
      'The file ends inside a quoted cell: a quotation mark is left open. Nothing was taken.',
    );
  }
}

async function* tableRows(
  file: FileLike,
  encoding: Encoding,
  separator: Separator,
): AsyncGenerator<RowBatch> {
  let line = 1;
  for await (const { text, share } of pieces(file, encoding)) {
    const { data } = Papa.parse<string[]>(text, { delimiter: separator });
    // The text ends with a line end, after which the parser sees one more, empty row.
    if (data.length > 0 && isEmpty(data[data.length - 1])) data.pop();
    const rows: string[][] = [];
    const lines: number[] = [];
    for (const cells of data) {
      const here = line;
      line += 1 + innerLineEnds(cells);
      if (isEmpty(cells)) continue;
      rows.push(cells);
      lines.push(here);
    }
    yield { rows, lines, share };
  }
}

function openNdjson(file: FileLike, text: string, encoding: Encoding): Source {
  const given = text.split('\n').filter((line) => line.trim() !== '');
  // The last line of the first part may be cut.
  const table = ndjsonTable(file.size > LOOK_BYTES ? given.slice(0, -1) : given);
  const readable = given.slice(0, 200).flatMap((line) => {
    try {
      return [table.cellsOf(line)];
    } catch {
      return [];
    }
  });
  return {
    encoding,
    sheets: [],
    sheet: null,
    separator: null,
    head: [[...table.headings], ...readable],
    async *rows(refuse) {
      // The headings count as a row that stands in no line.
      yield { rows: [[...table.headings]], lines: [1], share: 0 };
      let line = 0;
      for await (const piece of pieces(file, encoding)) {
        const rows: string[][] = [];
        const lines: number[] = [];
        const all = piece.text.split('\n');
        all.pop();
        for (const each of all) {
          line++;
          if (each.trim() === '') continue;
          try {
            rows.push(table.cellsOf(each));
            lines.push(line);
          } catch (error) {
            refuse(line, each, `not a JSON object: ${(error as Error).message}`);
          }
        }
        yield { rows, lines, share: piece.share };
      }
    },
  };
}

async function openExposition(file: FileLike, encoding: Encoding): Promise<Source> {
  if (file.size > MOST_EXPOSITION_BYTES) {
    throw new BeaconError('TOO_LARGE', 'OpenMetrics text may have at most 50 MB. Send it in parts.');
  }
  const bytes = await file.slice(0, file.size).arrayBuffer();
  const { samples, refused, units } = readOpenMetrics(new TextDecoder(DECODER[encoding]).decode(bytes));
  const headings = ['time', 'metric', 'value', 'unit'];
  const table = samples.map((sample) => [
    sample.t === null ? '' : String(sample.t),
    exposedName(sample),
    String(sample.value),
    units.get(sample.name) ?? '',
  ]);
  return {
    encoding,
    sheets: [],
    sheet: null,
    separator: null,
    head: [headings, ...table.slice(0, 200)],
    async *rows(refuse) {
      for (const { line, text, reason } of refused) refuse(line, text, reason);
      yield { rows: [headings], lines: [1], share: 0 };
      yield { rows: table, lines: samples.map(({ line }) => line), share: 1 };
    },
  };
}

function isEmpty(cells: readonly string[]): boolean {
  return cells.every((cell) => cell.trim() === '');
}

function innerLineEnds(cells: readonly string[]): number {
  let n = 0;
  for (const cell of cells) if (cell.includes('\n')) n += cell.split('\n').length - 1;
  return n;
}
