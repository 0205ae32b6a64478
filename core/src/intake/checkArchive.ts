import { Unzip, UnzipInflate } from 'fflate';
import { BeaconError } from '../errors';

/** Largest unpacked size and number of files of a spreadsheet. */
export const MAX_UNPACKED_BYTES = 300_000_000;
const MAX_FILES = 2000;

/** Kinds of spreadsheet archives, by a file that only they contain. */
export type BookKind = 'xlsx' | 'xlsb' | 'ods';
const BOOKS: Readonly<Record<string, BookKind>> = {
  'xl/workbook.xml': 'xlsx',
  'xl/workbook.bin': 'xlsb',
  'content.xml': 'ods',
};

/**
 * Checks that an archive is safe to read by unpacking it piece by piece without keeping anything; its stated
 * size cannot be trusted.
 *
 * @throws {BeaconError} TOO_LARGE when it unpacks to more than 300 MB or 2,000 files; BAD_INPUT when it is
 * damaged or no spreadsheet.
 */
export function checkArchive(bytes: Uint8Array, most = MAX_UNPACKED_BYTES): BookKind {
  if (!hasEnd(bytes)) {
    throw new BeaconError(
      'BAD_INPUT',
      'The spreadsheet is cut off: its end is missing. Copy or download it again.',
    );
  }
  let unpacked = 0;
  let files = 0;
  let kind: BookKind | null = null;
  const tooLarge = (): BeaconError =>
    new BeaconError(
      'TOO_LARGE',
      `This spreadsheet unpacks to more than ${Math.round(most / 1_000_000)} MB or ${MAX_FILES} parts. Save the sheet as CSV and choose that file.`,
    );
  const unzip = new Unzip((file) => {
    if (++files > MAX_FILES) throw tooLarge();
    kind ??= BOOKS[file.name] ?? null;
    file.ondata = (error, data) => {
      if (error) throw new BeaconError('BAD_INPUT', `The spreadsheet is damaged: ${error.message}.`);
      unpacked += data.length;
      if (unpacked > most) throw tooLarge();
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  const STEP = 65_536;
  try {
    for (let at = 0; at < bytes.length; at += STEP) {
      unzip.push(bytes.subarray(at, at + STEP), at + STEP >= bytes.length);
    }
  } catch (error) {
    if (error instanceof BeaconError) throw error;
    throw new BeaconError('BAD_INPUT', `The spreadsheet is damaged: ${(error as Error).message}.`);
  }
  if (kind === null) {
    throw new BeaconError(
      'BAD_INPUT',
      'This archive holds no spreadsheet. Choose an .xlsx file, or unpack it first.',
    );
  }
  return kind;
}

/** The record that ends every archive lies in its last 65,557 bytes. */
function hasEnd(bytes: Uint8Array): boolean {
  for (let i = bytes.length - 22; i >= Math.max(0, bytes.length - 65_557); i--) {
    if (bytes[i] === 0x50 && bytes[i + 1] === 0x4b && bytes[i + 2] === 5 && bytes[i + 3] === 6) return true;
  }
  return false;
}
