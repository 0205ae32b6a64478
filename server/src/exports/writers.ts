import type { Response } from 'express';
import ExcelJS from 'exceljs';
import { DateTime } from 'luxon';
import Papa from 'papaparse';
import { QUALITY_WORDS } from '@vivid-beacon/core';

/** One row of an export of samples. */
export interface ExportRow {
  readonly t: number;
  readonly metric: string;
  readonly key: string;
  readonly asset: string;
  readonly plant: string;
  readonly zone: string;
  readonly value: number | null;
  readonly unit: string;
  readonly quality: number;
}

/** Takes rows one after another and ends the answer. `write` waits while the receiver is slow. */
export interface ExportWriter {
  readonly write: (rows: readonly ExportRow[]) => Promise<void>;
  readonly end: () => Promise<void>;
}

export const EXPORT_FORMATS = ['csv', 'xlsx', 'ndjson'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

const FIELDS = ['time_utc', 'time_local', 'plant', 'asset', 'metric', 'key', 'value', 'unit', 'quality'];

function cells(row: ExportRow): (string | number | null)[] {
  return [
    new Date(row.t).toISOString(),
    DateTime.fromMillis(row.t, { zone: row.zone }).toISO({ suppressMilliseconds: true })!,
    row.plant,
    row.asset,
    row.metric,
    row.key,
    row.value,
    row.unit,
    QUALITY_WORDS[row.quality],
  ];
}

/** Writes to a response and waits for it to take more; stops when the receiver has gone. */
async function send(response: Response, text: string): Promise<void> {
  if (response.destroyed) throw new Error('the receiver has gone');
  if (response.write(text)) return;
  await new Promise<void>((resolve, reject) => {
    response.once('drain', resolve);
    response.once('close', () => reject(new Error('the receiver has gone')));
  });
}

/** RFC 4180 with a heading row; text that a spreadsheet would run as a formula is escaped by an apostrophe. */
function csvWriter(response: Response): ExportWriter {
  let first = true;
  return {
    write: async (rows) => {
      const head = first ? `\uFEFF${FIELDS.join(',')}\r\n` : '';
      first = false;
      const text = Papa.unparse(rows.map(cells), { escapeFormulae: true, newline: '\r\n', header: false });
      await send(response, `${head}${text}\r\n`);
    },
    end: async () => {
      if (first) await send(response, `\uFEFF${FIELDS.join(',')}\r\n`);
      response.end();
    },
  };
}

function ndjsonWriter(response: Response): ExportWriter {
  return {
    write: async (rows) => {
      const lines = rows.map(({ t, key, value, unit, quality }) =>
        JSON.stringify({
          metric: key,
          t: new Date(t).toISOString(),
          v: value,
          unit,
          q: QUALITY_WORDS[quality],
        }),
      );
      await send(response, `${lines.join('\n')}\n`);
    },
    end: async () => {
      response.end();
    },
  };
}

/** A sheet holds at most this many rows; further rows go on to the next one. */
const ROWS_A_SHEET = 1_048_575;

function xlsxWriter(response: Response): ExportWriter {
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: response, useStyles: true });
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
    write: async (rows) => {
      for (const row of rows) {
        if (rowsLeft === 0) next();
        const [, ...rest] = cells(row);
        sheet!.addRow([new Date(row.t), ...rest]).commit();
        rowsLeft--;
      }
      if (response.destroyed) throw new Error('the receiver has gone');
      // Lets the archive empty itself into the socket.
      await new Promise((resolve) => setImmediate(resolve));
    },
    end: async () => {
      if (sheet === null) next();
      sheet!.commit();
      await book.commit();
    },
  };
}

const KINDS: Readonly<Record<ExportFormat, { type: string; make: (response: Response) => ExportWriter }>> = {
  csv: { type: 'text/csv; charset=utf-8', make: csvWriter },
  ndjson: { type: 'application/x-ndjson; charset=utf-8', make: ndjsonWriter },
  xlsx: {
    type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    make: xlsxWriter,
  },
};

/** Begins an export as a file of the given name. */
export function openExport(response: Response, format: ExportFormat, name: string): ExportWriter {
  const { type, make } = KINDS[format];
  response.setHeader('Content-Type', type);
  response.setHeader('Content-Disposition', `attachment; filename="${name}.${format}"`);
  return make(response);
}
