import ExcelJS from 'exceljs';
import { BeaconError } from '@vivid-beacon/core';
import { recogniseRows } from '@vivid-beacon/core/src/intakeFiles';
import { checkArchive } from '@vivid-beacon/core/src/intake/checkArchive';
import type { FileLike, RowBatch, Source } from './source';

const MOST_BYTES = 60_000_000;
const ROWS_AT_ONCE = 2000;

/** Opens a spreadsheet (.xlsx). @throws {BeaconError} for one that is too large, damaged or empty. */
export async function openSheet(file: FileLike, wanted: string | null): Promise<Source> {
  if (file.size > MOST_BYTES) {
    throw new BeaconError(
      'TOO_LARGE',
      'A spreadsheet may have at most 60 MB. Save the sheet as CSV and choose that file.',
    );
  }
  const bytes = new Uint8Array(await file.slice(0, file.size).arrayBuffer());
  checkArchive(bytes);
  const book = new ExcelJS.Workbook();
  try {
    await book.xlsx.load(bytes.buffer as ArrayBuffer);
  } catch (error) {
    throw new BeaconError('BAD_INPUT', `The spreadsheet cannot be read: ${(error as Error).message}`);
  }
  const filled = book.worksheets.filter((sheet) => sheet.actualRowCount > 0);
  if (filled.length === 0) throw new BeaconError('BAD_INPUT', 'None of the sheets holds anything.');
  const sheet = filled.find(({ name }) => name === wanted) ?? filled.find(holdsData) ?? filled[0];
  const { rows, lines } = rowsOf(sheet);
  return {
    encoding: 'XLSX',
    sheets: filled.map(({ name }) => name),
    sheet: sheet.name,
    separator: null,
    head: rows.slice(0, 200),
    async *rows(): AsyncGenerator<RowBatch> {
      for (let i = 0; i < rows.length; i += ROWS_AT_ONCE) {
        const to = Math.min(rows.length, i + ROWS_AT_ONCE);
        yield { rows: rows.slice(i, to), lines: lines.slice(i, to), share: to / rows.length };
      }
    },
  };
}

/** Does a sheet hold times and numbers? A page of notes in front of them does not. */
function holdsData(sheet: ExcelJS.Worksheet): boolean {
  try {
    recogniseRows(rowsOf(sheet).rows.slice(0, 200), null);
    return true;
  } catch {
    return false;
  }
}

function rowsOf(sheet: ExcelJS.Worksheet): { rows: string[][]; lines: number[] } {
  const rows: string[][] = [];
  const lines: number[] = [];
  sheet.eachRow({ includeEmpty: false }, (row, line) => {
    const cells: string[] = [];
    row.eachCell({ includeEmpty: true }, (cell, column) => {
      // Only the first cell of a merged area speaks; headings are spread later.
      cells[column - 1] = cell.isMerged && cell.master !== cell ? '' : textOf(cell.value);
    });
    for (let i = 0; i < cells.length; i++) cells[i] ??= '';
    if (cells.every((cell) => cell.trim() === '')) return;
    rows.push(cells);
    lines.push(line);
  });
  return { rows, lines };
}

/** What a cell says, as text. Dates are wall-clock times; an error cell says which error. */
function textOf(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date)
    return value
      .toISOString()
      .replace('T', ' ')
      .replace(/(\.000)?Z$/, '');
  if (typeof value !== 'object') return String(value);
  if ('error' in value) return String(value.error);
  if ('richText' in value) return value.richText.map(({ text }) => text).join('');
  if ('text' in value) return textOf(value.text as ExcelJS.CellValue);
  if ('result' in value) return textOf(value.result as ExcelJS.CellValue);
  return '';
}
