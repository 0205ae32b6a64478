import { BeaconError } from '@vivid-beacon/core';
import { isArchive, isCompoundFile, recogniseRows } from '@vivid-beacon/core/src/intakeFiles';
import { checkArchive } from '@vivid-beacon/core/src/intake/checkArchive';
import { readOtherBook } from './otherBook';
import { rowsAtHand, type FileLike, type Source } from './source';
import type { SheetRows } from './sheetRows';
import { readXlsx } from './xlsxBook';

const MAX_BYTES = 60_000_000;

/** Opens a spreadsheet (.xlsx, .xls, .ods). @throws {BeaconError} for one that is too large, damaged, locked or empty. */
export async function openSheet(file: FileLike, wanted: string | null): Promise<Source> {
  if (file.size > MAX_BYTES) {
    throw new BeaconError(
      'TOO_LARGE',
      'A spreadsheet may have at most 60 MB. Save the sheet as CSV and choose that file.',
    );
  }
  const bytes = new Uint8Array(await file.slice(0, file.size).arrayBuffer());
  const { kind, sheets } = await readBook(bytes);
  const filled = sheets.filter(({ rows }) => rows.length > 0);
  if (filled.length === 0) throw new BeaconError('BAD_INPUT', 'None of the sheets holds anything.');
  const sheet = filled.find(({ name }) => name === wanted) ?? filled.find(holdsData) ?? filled[0];
  const last = sheet.lines[sheet.lines.length - 1];
  return {
    encoding: kind,
    counted: 'row',
    sheets: filled.map(({ name }) => name),
    sheet: sheet.name,
    separator: null,
    headings: null,
    parts: {},
    ...rowsAtHand(sheet.rows, sheet.lines, last - sheet.lines.length),
  };
}

async function readBook(bytes: Uint8Array): Promise<{ kind: string; sheets: readonly SheetRows[] }> {
  if (isCompoundFile(bytes)) {
    if (hasText(bytes, 'EncryptedPackage') || hasText(bytes, 'StrongEncryptionDataSpace')) {
      throw new BeaconError(
        'BAD_INPUT',
        'This spreadsheet is protected by a password. Save it without one and choose that file.',
      );
    }
    return { kind: 'XLS', sheets: readOtherBook(bytes) };
  }
  if (!isArchive(bytes)) throw new BeaconError('BAD_INPUT', 'This is not a spreadsheet.');
  const kind = checkArchive(bytes);
  return kind === 'xlsx'
    ? { kind: 'XLSX', sheets: await readXlsx(bytes) }
    : { kind: kind.toUpperCase(), sheets: readOtherBook(bytes) };
}

/** Names in a compound file are written in UTF-16. */
function hasText(bytes: Uint8Array, text: string): boolean {
  const wanted = [...text].flatMap((letter) => [letter.charCodeAt(0), 0]);
  const end = Math.min(bytes.length, 2_000_000) - wanted.length;
  for (let i = 0; i < end; i += 2) {
    let k = 0;
    while (k < wanted.length && bytes[i + k] === wanted[k]) k++;
    if (k === wanted.length) return true;
  }
  return false;
}

/** Whether a sheet holds times and numbers; a front page with notes does not. */
function holdsData({ rows }: SheetRows): boolean {
  try {
    return recogniseRows(rows.slice(0, 200), null).questions.every(
      ({ about }) => !/time|values|rows/.test(about),
    );
  } catch {
    return false;
  }
}
