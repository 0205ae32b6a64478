import { read, utils, type CellObject } from '@e965/xlsx';
import { BeaconError } from '@vivid-beacon/core';
import { numberAsShown, timeAsText } from './cellText';
import type { SheetRows } from './sheetRows';

/** Reads an .xls or .ods file. @throws {BeaconError} BAD_INPUT for one that cannot be read. */
export function readOtherBook(bytes: Uint8Array): SheetRows[] {
  let book: ReturnType<typeof read>;
  try {
    book = read(bytes, { type: 'array', cellDates: true, cellNF: true, UTC: true });
  } catch (error) {
    const message = (error as Error).message;
    throw new BeaconError(
      'BAD_INPUT',
      /password|encrypt/i.test(message)
        ? 'This spreadsheet is protected by a password. Save it without one and choose that file.'
        : `The spreadsheet cannot be read: ${message}. Save it as .xlsx or CSV and choose that file.`,
    );
  }
  const from1904 = book.Workbook?.WBProps?.date1904 === true;
  return book.SheetNames.map((name) => {
    const sheet = book.Sheets[name];
    const range = utils.decode_range(sheet['!ref'] ?? 'A1:A1');
    const rows: string[][] = [];
    const lines: number[] = [];
    for (let r = range.s.r; r <= range.e.r; r++) {
      const cells: string[] = [];
      for (let c = 0; c <= range.e.c; c++) {
        cells.push(textOf(sheet[utils.encode_cell({ r, c })] as CellObject | undefined, from1904));
      }
      while (cells.length > 0 && cells[cells.length - 1] === '') cells.pop();
      if (cells.every((cell) => cell.trim() === '')) continue;
      rows.push(cells);
      lines.push(r + 1);
    }
    return { name, rows, lines };
  });
}

function textOf(cell: CellObject | undefined, from1904: boolean): string {
  if (cell === undefined || cell.v === undefined || cell.v === null) return '';
  if (cell.t === 'e') return cell.w ?? '#ERROR!';
  if (cell.v instanceof Date) return timeAsText(cell.v, from1904);
  if (typeof cell.v === 'number')
    return numberAsShown(cell.v, typeof cell.z === 'string' ? cell.z : undefined);
  return String(cell.v);
}
