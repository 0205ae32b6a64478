import { BeaconError } from '@vivid-beacon/core';
import { jsonRows, jsonTable } from '@vivid-beacon/core/src/intakeFiles';
import { rowsAtHand, type FileLike, type Source } from './source';
import { SCAN_BYTES, textPieces, wholeText, type Encoding } from './textPieces';

const MAX_BYTES = 100_000_000;

/** Opens a JSON document that holds a list of objects, or lists of equal length. */
export async function openJson(file: FileLike, encoding: Encoding): Promise<Source> {
  const text = await wholeText(file, encoding, MAX_BYTES, 'A JSON document');
  let document: unknown;
  try {
    document = JSON.parse(text);
  } catch (error) {
    throw new BeaconError(
      'BAD_INPUT',
      `This begins like JSON but cannot be read as such; it may be cut off. ${(error as Error).message}.`,
    );
  }
  const found = jsonRows(document);
  const base = {
    encoding: `JSON, ${encoding}`,
    counted: 'item',
    sheets: [],
    sheet: null,
    separator: null,
    parts: {},
  } as const;
  if (found.kind === 'cells') {
    const lines = found.rows.map((_, i) => i + 1);
    return { ...base, headings: found.headings, ...rowsAtHand(found.rows, lines) };
  }
  const table = jsonTable();
  const rows: string[][] = [];
  const lines: number[] = [];
  const bad: { line: number; text: string }[] = [];
  found.rows.forEach((each, i) => {
    try {
      rows.push(table.cellsOf(each));
      lines.push(i + 1);
    } catch (error) {
      if (error instanceof BeaconError) throw error;
      bad.push({ line: i + 1, text: JSON.stringify(each) });
    }
  });
  const hand = rowsAtHand(rows, lines);
  return {
    ...base,
    headings: table.headings,
    ...hand,
    async *rows(refuse) {
      for (const { line, text: value } of bad) refuse(line, value, 'not a JSON object');
      yield* hand.rows(refuse);
    },
  };
}

/** Opens lines of JSON, one object a line. */
export function openJsonLines(file: FileLike, text: string, encoding: Encoding): Source {
  const table = jsonTable();
  const given = text.split('\n').filter((line) => line.trim() !== '');
  const whole = file.size <= SCAN_BYTES;
  // The last line of the first part may be cut.
  const head = (whole ? given : given.slice(0, -1)).flatMap((line) => {
    try {
      return [table.cellsOf(JSON.parse(line))];
    } catch (error) {
      if (error instanceof BeaconError) throw error;
      return [];
    }
  });
  return {
    encoding: `lines of JSON, ${encoding}`,
    counted: 'line',
    sheets: [],
    sheet: null,
    separator: null,
    head,
    whole,
    headings: table.headings,
    parts: {},
    async *rows(refuse) {
      let line = 0;
      for await (const piece of textPieces(file, encoding)) {
        const rows: string[][] = [];
        const lines: number[] = [];
        let blank = 0;
        const all = piece.text.split('\n');
        all.pop();
        for (const each of all) {
          line++;
          if (each.trim() === '') {
            blank++;
            continue;
          }
          try {
            rows.push(table.cellsOf(JSON.parse(each)));
            lines.push(line);
          } catch (error) {
            if (error instanceof BeaconError) throw error;
            refuse(line, each, `not a JSON object: ${(error as Error).message}`);
          }
        }
        yield { rows, lines, blank, continued: 0, share: piece.share };
      }
    },
  };
}
