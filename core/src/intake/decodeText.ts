import { BeaconError } from '../errors';

export interface DecodedText {
  readonly text: string;
  readonly encoding: 'UTF-8' | 'UTF-16 LE' | 'UTF-16 BE' | 'Windows-1252';
}

/**
 * Turns the bytes of a text file into text: by its byte order mark, else UTF-8 where that is valid, else
 * Windows-1252 (the usual superset of Latin-1).
 *
 * @throws {BeaconError} BAD_INPUT for bytes that are not text.
 */
export function decodeText(bytes: Uint8Array): DecodedText {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) {
    return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16 LE' };
  }
  if (bytes[0] === 0xfe && bytes[1] === 0xff) {
    return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16 BE' };
  }
  if (looksBinary(bytes)) {
    throw new BeaconError(
      'BAD_INPUT',
      'This is not a text file: it holds bytes that no text has. Save the data as CSV and choose that file.',
    );
  }
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), encoding: 'Windows-1252' };
  }
}

/** Control characters other than tab, line ends and form feed do not occur in text. */
function looksBinary(bytes: Uint8Array): boolean {
  const end = Math.min(bytes.length, 65_536);
  for (let i = 0; i < end; i++) {
    const byte = bytes[i];
    if (byte < 9 || (byte > 13 && byte < 32 && byte !== 26 && byte !== 27)) return true;
  }
  return false;
}
