import { BeaconError } from '@vivid-beacon/core';
import { decodeText, splitRows, type DecodedText } from '@vivid-beacon/core/src/intakeFiles';
import type { FileLike } from './source';

/** How much of a file is read to recognise it. */
export const SCAN_BYTES = 256 * 1024;
const PIECE_BYTES = 1024 * 1024;

const DECODER = {
  'UTF-8': 'utf-8',
  'UTF-16 LE': 'utf-16le',
  'UTF-16 BE': 'utf-16be',
  'Windows-1252': 'windows-1252',
} as const;
export type Encoding = DecodedText['encoding'];

/** Decodes the first part of a file; a character cut at its end is left out. */
export async function firstPart(file: FileLike): Promise<DecodedText> {
  const bytes = new Uint8Array(await file.slice(0, SCAN_BYTES).arrayBuffer());
  if (file.size <= SCAN_BYTES) return decodeText(bytes);
  for (let cut = 0; cut < 4; cut++) {
    const decoded = decodeText(bytes.subarray(0, bytes.length - cut));
    if (decoded.encoding !== 'Windows-1252') return decoded;
  }
  return decodeText(bytes);
}

/** The whole text of a file. @throws {BeaconError} TOO_LARGE beyond `most` bytes. */
export async function wholeText(
  file: FileLike,
  encoding: Encoding,
  most: number,
  what: string,
): Promise<string> {
  if (file.size > most) {
    throw new BeaconError(
      'TOO_LARGE',
      `${what} may have at most ${Math.round(most / 1_000_000)} MB, this has ${Math.round(file.size / 1_000_000)} MB. Send it in parts, or as CSV or lines of JSON.`,
    );
  }
  return new TextDecoder(DECODER[encoding]).decode(await file.slice(0, file.size).arrayBuffer());
}

/** The text of a file piece by piece, each ending with a whole row. */
export async function* textPieces(
  file: FileLike,
  encoding: Encoding,
): AsyncGenerator<{ text: string; share: number }> {
  const decoder = new TextDecoder(DECODER[encoding]);
  let rest = '';
  for (let at = 0; at < file.size; at += PIECE_BYTES) {
    const bytes = await file.slice(at, at + PIECE_BYTES).arrayBuffer();
    const last = at + PIECE_BYTES >= file.size;
    let text = rest + decoder.decode(bytes, { stream: !last });
    // Lines that end in a carriage return alone, as on old Macs.
    if (!text.includes('\n')) text = text.replace(/\r/g, '\n');
    if (last && text !== '' && !text.endsWith('\n')) text += '\n';
    const piece = splitRows(text);
    rest = piece.rest;
    yield { text: piece.whole, share: Math.min(1, (at + PIECE_BYTES) / file.size) };
  }
  if (rest.trim() !== '') {
    throw new BeaconError(
      'BAD_INPUT',
      'The file ends inside a quoted cell: a quotation mark is left open. Nothing was taken.',
    );
  }
}
