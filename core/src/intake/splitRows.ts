import { BeaconError } from '../errors';

/** No row of a real file is longer than this; one that is was cut by a wrong quote. */
export const MAX_ROW_LENGTH = 4_000_000;

/**
 * Cuts a piece of a file after its last whole row, so that a file of any size is read piece by piece. A
 * line end inside double quotes does not end a row (RFC 4180, section 2, rule 6).
 *
 * @throws {BeaconError} BAD_INPUT when no row ends within 4,000,000 characters.
 */
export function splitRows(text: string): { readonly whole: string; readonly rest: string } {
  let quoted = false;
  let end = 0;
  // Without quotation marks every line end ends a row.
  if (!text.includes('"')) end = text.lastIndexOf('\n') + 1;
  else {
    for (let i = 0; i < text.length; i++) {
      const code = text.charCodeAt(i);
      if (code === 34) quoted = !quoted;
      else if (code === 10 && !quoted) end = i + 1;
    }
  }
  if (text.length - end > MAX_ROW_LENGTH) {
    throw new BeaconError(
      'BAD_INPUT',
      `A row is longer than ${MAX_ROW_LENGTH.toLocaleString('en-GB')} characters. Check the file: a quotation mark may be left open, or it has no line ends.`,
    );
  }
  return { whole: text.slice(0, end), rest: text.slice(end) };
}
