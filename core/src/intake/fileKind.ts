/** What kind of file this is, by how it begins. */
export type FileKind = 'table' | 'ndjson' | 'openmetrics' | 'sheet';

/** By the first bytes of a file: a zip archive is taken for a spreadsheet. */
export function isArchive(bytes: Uint8Array): boolean {
  return bytes.length >= 4 && bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;
}

/** By the first part of a text. */
export function textKind(text: string): Exclude<FileKind, 'sheet'> {
  const start = text.trimStart();
  if (/^# (TYPE|HELP|UNIT|EOF)\b/.test(start)) return 'openmetrics';
  const line = start.slice(0, start.indexOf('\n') < 0 ? undefined : start.indexOf('\n')).trim();
  if (line.startsWith('{') && line.endsWith('}')) {
    try {
      JSON.parse(line);
      return 'ndjson';
    } catch {
      return 'table';
    }
  }
  return 'table';
}
