import { BeaconError } from '../errors';

/** The kind of a file, by how it begins. */
export type FileKind = 'table' | 'ndjson' | 'json' | 'openmetrics' | 'sheet' | 'gzip';

const starts = (bytes: Uint8Array, ...wanted: number[]): boolean =>
  bytes.length >= wanted.length && wanted.every((byte, i) => bytes[i] === byte);
const ascii = (bytes: Uint8Array, from: number, to: number): string =>
  String.fromCharCode(...bytes.subarray(from, to));

/** By the first bytes of a file: a zip archive is taken for a spreadsheet. */
export function isArchive(bytes: Uint8Array): boolean {
  return starts(bytes, 0x50, 0x4b, 3, 4);
}

export function isGzip(bytes: Uint8Array): boolean {
  return starts(bytes, 0x1f, 0x8b);
}

/** A compound file of the office programs before 2007 (MS-CFB, section 2.2): .xls, or a protected .xlsx. */
export function isCompoundFile(bytes: Uint8Array): boolean {
  return starts(bytes, 0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1);
}

/** Files that hold no table a person could mean, by their first bytes, and what to do instead. */
const OTHERS: readonly (readonly [what: string, is: (bytes: Uint8Array) => boolean])[] = [
  ['a picture (PNG)', (bytes) => starts(bytes, 0x89, 0x50, 0x4e, 0x47)],
  ['a picture (JPEG)', (bytes) => starts(bytes, 0xff, 0xd8, 0xff)],
  ['a picture (GIF)', (bytes) => ascii(bytes, 0, 4) === 'GIF8'],
  ['a picture (WebP)', (bytes) => ascii(bytes, 0, 4) === 'RIFF' && ascii(bytes, 8, 12) === 'WEBP'],
  ['a picture (TIFF)', (bytes) => starts(bytes, 0x49, 0x49, 0x2a, 0) || starts(bytes, 0x4d, 0x4d, 0, 0x2a)],
  ['a PDF document', (bytes) => ascii(bytes, 0, 5) === '%PDF-'],
  ['a Parquet file', (bytes) => ascii(bytes, 0, 4) === 'PAR1'],
  ['an Arrow file', (bytes) => ascii(bytes, 0, 6) === 'ARROW1'],
  ['a SQLite database', (bytes) => ascii(bytes, 0, 15) === 'SQLite format 3'],
  ['a 7-Zip archive', (bytes) => starts(bytes, 0x37, 0x7a, 0xbc, 0xaf)],
  ['a bzip2 archive', (bytes) => ascii(bytes, 0, 3) === 'BZh'],
  ['an xz archive', (bytes) => starts(bytes, 0xfd, 0x37, 0x7a, 0x58, 0x5a)],
  ['a RAR archive', (bytes) => ascii(bytes, 0, 4) === 'Rar!'],
];

/**
 * Refuses files that cannot hold a table, and says what they are.
 *
 * @throws {BeaconError} BAD_INPUT for an empty file, a picture, a PDF, an archive and the like.
 */
export function refuseOtherFiles(bytes: Uint8Array): void {
  if (bytes.length === 0) {
    throw new BeaconError(
      'BAD_INPUT',
      'The file is empty (0 bytes). Export it again and choose the new file.',
    );
  }
  const found = OTHERS.find(([, is]) => is(bytes));
  if (found) {
    throw new BeaconError(
      'BAD_INPUT',
      `This is ${found[0]}, not a table. Export the data as CSV, .xlsx or JSON and choose that file.`,
    );
  }
}

/**
 * By the first part of a text.
 *
 * @throws {BeaconError} BAD_INPUT for a web page or another XML document.
 */
export function textKind(text: string): Exclude<FileKind, 'sheet' | 'gzip'> {
  const start = text.trimStart();
  if (/^<(!doctype html|html|head|body|table)\b/i.test(start)) {
    throw new BeaconError(
      'BAD_INPUT',
      'This is a web page, whatever its name says: perhaps a sign-in page was saved in place of the file. Export the data as CSV or .xlsx and choose that file.',
    );
  }
  if (/^<\?xml\b|^<[a-z][\w:-]*[\s>]/i.test(start)) {
    throw new BeaconError(
      'BAD_INPUT',
      'This is an XML document, not a table. Export the data as CSV, .xlsx or JSON and choose that file.',
    );
  }
  if (/^# (TYPE|HELP|UNIT|EOF)\b/.test(start)) return 'openmetrics';
  if (looksExposed(start)) return 'openmetrics';
  if (start.startsWith('[')) return 'json';
  if (!start.startsWith('{')) return 'table';
  const end = start.indexOf('\n');
  const line = (end < 0 ? start : start.slice(0, end)).trim();
  if (isJson(line)) return end < 0 || start.slice(end).trim() === '' ? 'json' : 'ndjson';
  // An object over several lines, or the beginning of a very long one.
  return line === '{' || /^\{\s*"/.test(start) ? 'json' : 'table';
}

const EXPOSED_LINE = /^(?:#.*|[a-zA-Z_:][\w:]*(?:\{.*\})? \S+(?: -?\d+(?:\.\d+)?)?)$/;

/** Lines of name, labels and value without any comment before them. */
function looksExposed(text: string): boolean {
  const lines = text.split('\n', 12).map((line) => line.trim());
  const whole = lines.length > 1 ? lines.slice(0, -1) : lines;
  return (
    whole.some((line) => /\{\w+="/.test(line)) &&
    whole.every((line) => line === '' || (EXPOSED_LINE.test(line) && !line.startsWith('{')))
  );
}

function isJson(text: string): boolean {
  try {
    JSON.parse(text);
    return true;
  } catch {
    return false;
  }
}
