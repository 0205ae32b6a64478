import ExcelJS from 'exceljs';
import { DateTime } from 'luxon';
import type { Table } from '@vivid-beacon/core/src/boards';
import { asTask, type TaskResult } from '../workers/workerPool';

/** One sheet of a workbook: rows of a readout. */
export interface NumberSheet {
  /** Shortened to what a sheet may be called. */
  readonly name: string;
  readonly table: Table;
  readonly zone: string;
  /** What its numbers are of, as names and words. */
  readonly about: readonly (readonly [name: string, words: string])[];
}

/** Most characters of the name of a sheet, and those it may not have. */
const MOST_IN_NAME = 31;
const NOT_IN_NAME = /[[\]:*?/\\']/g;
const WIDEST = 60;

/** Task of a worker: sheets as the bytes of an XLSX file. */
export function writeSheets(given: {
  readonly title: string;
  readonly sheets: readonly NumberSheet[];
}): Promise<TaskResult<Uint8Array>> {
  return asTask(() => xlsxOf(given.title, given.sheets));
}

/**
 * A workbook with a sheet for each readout, and a first one that says what they are of: numbers are numbers, unrounded,
 * moments are dates on the clock of the site, units stand in a row of their own under the names. Text stays text, whatever it
 * begins with.
 */
export async function xlsxOf(title: string, sheets: readonly NumberSheet[]): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  const names = sheetNames(sheets.map(({ name }) => name));
  const about = book.addWorksheet('About');
  about.addRow([title]).font = { bold: true };
  sheets.forEach((sheet, i) => {
    about.addRow([]);
    about.addRow([sheet.name]).font = { bold: true };
    about.addRow(['Sheet', names[i]]);
    for (const [name, words] of sheet.about) about.addRow([name, words]);
  });
  about.getColumn(1).width = 22;
  about.getColumn(2).width = WIDEST;
  sheets.forEach((sheet, i) => addSheet(book, names[i], sheet));
  return new Uint8Array(await book.xlsx.writeBuffer());
}

function addSheet(
  book: ExcelJS.Workbook,
  name: string,
  { table: { columns, rows }, zone }: NumberSheet,
): void {
  const sheet = book.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 2 }] });
  sheet.addRow(columns.map((column) => column.name)).font = { bold: true };
  sheet.addRow(columns.map((column) => (column.isTime ? zone : column.unit)));
  for (const row of rows)
    sheet.addRow(
      row.map((value, i) =>
        columns[i].isTime && typeof value === 'number' ? wallClock(value, zone) : value,
      ),
    );
  columns.forEach((column, i) => {
    const own = sheet.getColumn(i + 1);
    const longest = rows.slice(0, 200).reduce((most, row) => Math.max(most, String(row[i] ?? '').length), 0);
    own.width = column.isTime ? 20 : Math.min(WIDEST, Math.max(column.name.length, longest, 8) + 2);
    if (column.isTime) own.numFmt = 'yyyy-mm-dd hh:mm:ss';
  });
}

/** A sheet has no zones: the time on the clock of the site, as if it were UTC. */
function wallClock(at: number, zone: string): Date {
  const local = DateTime.fromMillis(at, { zone });
  return new Date(at + local.offset * 60_000);
}

/** Names that a workbook takes, each once. */
function sheetNames(names: readonly string[]): string[] {
  const taken = new Set(['about', 'history']);
  return names.map((name) => {
    const plain = name.replace(NOT_IN_NAME, ' ').replace(/\s+/g, ' ').trim() || 'Readout';
    for (let n = 1; ; n++) {
      const end = n === 1 ? '' : ` ${n}`;
      const made = plain.slice(0, MOST_IN_NAME - end.length).trimEnd() + end;
      if (taken.has(made.toLowerCase())) continue;
      taken.add(made.toLowerCase());
      return made;
    }
  });
}
