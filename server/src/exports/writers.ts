import { once } from 'node:events';
import type { Writable } from 'node:stream';
import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { MINUTE_MS, QUALITY_WORDS } from '@vivid-beacon/core';
import { zoneClock } from '@vivid-beacon/core/src/aggregation';
import type { ExportFormat } from '@vivid-beacon/core';
import type { ExportPiece } from './formats';

/** Takes pieces one after another and ends the stream. `write` waits while the receiver is slow. */
export interface ExportWriter {
  readonly write: (piece: ExportPiece) => Promise<void>;
  readonly end: () => Promise<void>;
}

const ROWS_AT_ONCE = 5000;

const FIELDS = ['time_utc', 'time_local', 'plant', 'asset', 'metric', 'key', 'value', 'unit', 'quality'];

type Cells = [Date, ...(string | number | null)[]];

/** Rows of a piece, a few thousand at a time, so that a long piece needs little memory. */
function* rowsOf(piece: ExportPiece): Generator<Cells[]> {
  const { t, v, q } = piece;
  const clock = zoneClock(piece.zone);
  for (let i = 0; i < t.length; i += ROWS_AT_ONCE) {
    const rows: Cells[] = [];
    for (let k = i; k < Math.min(t.length, i + ROWS_AT_ONCE); k++) {
      rows.push([
        new Date(t[k]),
        localIso(t[k], clock.offset(t[k])),
        piece.plant,
        piece.asset,
        piece.metric,
        piece.key,
        Number.isNaN(v[k]) ? null : v[k],
        piece.unit,
        QUALITY_WORDS[q?.[k] ?? 0],
      ]);
    }
    yield rows;
  }
}

/** A time on the local clock with its offset, as of ISO 8601: "2026-11-19T06:00:00+01:00". */
function localIso(t: number, offsetMs: number): string {
  const wall = new Date(t + offsetMs).toISOString().replace(/(?:\.000)?Z$/, '');
  const minutes = Math.abs(offsetMs) / MINUTE_MS;
  const two = (n: number): string => String(Math.floor(n)).padStart(2, '0');
  return `${wall}${offsetMs < 0 ? '-' : '+'}${two(minutes / 60)}:${two(minutes % 60)}`;
}

/** Writes text and waits until more can be written. */
async function put(sink: Writable, text: string): Promise<void> {
  if (!sink.write(text)) await once(sink, 'drain');
}

/** RFC 4180 with a heading row; text that a spreadsheet would run as a formula is escaped by an apostrophe. */
function csvWriter(sink: Writable): ExportWriter {
  const head = put(sink, `\uFEFF${FIELDS.join(',')}\r\n`);
  return {
    write: async (piece) => {
      await head;
      for (const rows of rowsOf(piece)) {
        const texts = rows.map(([at, ...rest]) => [at.toISOString(), ...rest]);
        const text = Papa.unparse(texts, { escapeFormulae: true, newline: '\r\n', header: false });
        await put(sink, `${text}\r\n`);
      }
    },
    end: async () => {
      await head;
      sink.end();
    },
  };
}

function ndjsonWriter(sink: Writable): ExportWriter {
  return {
    write: async (piece) => {
      for (const rows of rowsOf(piece)) {
        const lines = rows.map(([at, , , , , key, value, unit, quality]) =>
          JSON.stringify({ metric: key, t: at.toISOString(), v: value, unit, q: quality }),
        );
        await put(sink, `${lines.join('\n')}\n`);
      }
    },
    end: async () => {
      sink.end();
    },
  };
}

/** A sheet holds at most this many rows; further rows go on to the next one. */
const ROWS_A_SHEET = 1_048_575;

function xlsxWriter(sink: Writable): ExportWriter {
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: sink, useStyles: true });
  let sheet: ExcelJS.Worksheet | null = null;
  let rowsLeft = 0;
  let sheets = 0;
  const next = (): ExcelJS.Worksheet => {
    sheet?.commit();
    sheets++;
    sheet = book.addWorksheet(sheets === 1 ? 'Samples' : `Samples ${sheets}`, {
      views: [{ state: 'frozen', ySplit: 1 }],
    });
    sheet.columns = FIELDS.map((header) => ({ header, width: header.startsWith('time') ? 22 : 16 }));
    sheet.getColumn(1).numFmt = 'yyyy-mm-dd hh:mm:ss.000';
    rowsLeft = ROWS_A_SHEET;
    return sheet;
  };
  return {
    write: async (piece) => {
      for (const rows of rowsOf(piece)) {
        for (const row of rows) {
          if (rowsLeft === 0) next();
          sheet!.addRow(row).commit();
          rowsLeft--;
        }
        // Lets the archive empty itself into the stream.
        await new Promise((resolve) => setImmediate(resolve));
      }
    },
    end: async () => {
      if (sheet === null) next();
      sheet!.commit();
      await book.commit();
    },
  };
}

/** How each kind of file is written. */
export const WRITERS: Readonly<Record<ExportFormat, (sink: Writable) => ExportWriter>> = {
  csv: csvWriter,
  ndjson: ndjsonWriter,
  xlsx: xlsxWriter,
};
