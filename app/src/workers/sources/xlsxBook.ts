import ExcelJS from 'exceljs';
import { BeaconError } from '@vivid-beacon/core';
import { numberAsShown, timeAsText } from './cellText';
import type { SheetRows } from './sheetRows';

/** Reads an .xlsx file. @throws {BeaconError} BAD_INPUT for one that cannot be read. */
export async function readXlsx(bytes: Uint8Array): Promise<SheetRows[]> {
  const book = new ExcelJS.Workbook();
  try {
    await book.xlsx.load(bytes.buffer as ArrayBuffer);
  } catch (error) {
    throw new BeaconError('BAD_INPUT', `The spreadsheet cannot be read: ${(error as Error).message}`);
  }
  const from1904 = book.properties.date1904 === true;
  return book.worksheets.map((sheet) => ({ name: sheet.name, ...rowsOf(sheet, from1904) }));
}

function rowsOf(sheet: ExcelJS.Worksheet, from1904: boolean): Pick<SheetRows, 'rows' | 'lines'> {
  const rows: string[][] = [];
  const lines: number[] = [];
  sheet.eachRow({ includeEmpty: false }, (row, line) => {
    const cells: string[] = [];
    row.eachCell({ includeEmpty: true }, (cell, column) => {
      // Only the first cell of a merged area has content; headings and names are spread later.
      const merged = cell.isMerged && cell.master !== cell;
      cells[column - 1] = merged ? '' : textOf(cell.value, cell.numFmt, from1904);
    });
    for (let i = 0; i < cells.length; i++) cells[i] ??= '';
    if (cells.every((cell) => cell.trim() === '')) return;
    rows.push(cells);
    lines.push(line);
  });
  return { rows, lines };
}

/** What a cell says, as text. Dates are wall-clock times; an error cell says which error. */
function textOf(value: ExcelJS.CellValue, format: string | undefined, from1904: boolean): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return timeAsText(value, from1904);
  if (typeof value === 'number') return numberAsShown(value, format);
  if (typeof value !== 'object') return String(value);
  if ('error' in value) return String(value.error);
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('text' in value) return textOf(value.text as ExcelJS.CellValue, format, from1904);
  if ('result' in value) return textOf(value.result as ExcelJS.CellValue, format, from1904);
  return '';
}
