import { Gunzip } from 'fflate';
import { BeaconError } from '@vivid-beacon/core';
import { isGzip, textKind, type Separator } from '@vivid-beacon/core/src/intakeFiles';
import { firstBytes, isSheet } from './fileBytes';
import { openExposition } from './expositionSource';
import { openJson, openJsonLines } from './jsonSource';
import type { FileLike, Source } from './source';
import { openTable } from './tableSource';
import { firstPart } from './textPieces';

const MAX_UNPACKED_BYTES = 400_000_000;
const PIECE_BYTES = 1024 * 1024;

/**
 * Opens a text file: a table, JSON, lines of JSON or OpenMetrics text, each packed with gzip or not.
 *
 * @throws {BeaconError} for anything else, naming its kind.
 */
export async function openText(given: FileLike, separator: Separator | null): Promise<Source> {
  const file = isGzip(await firstBytes(given)) ? await unpacked(given) : given;
  if (file !== given && isSheet(await firstBytes(file))) {
    throw new BeaconError(
      'BAD_INPUT',
      'A spreadsheet packed with gzip: unpack it and choose the .xlsx file.',
    );
  }
  const { text, encoding } = await firstPart(file);
  const source = await openKind(file, text, encoding, separator);
  return file === given ? source : { ...source, encoding: `gzip, ${source.encoding}` };
}

function openKind(
  file: FileLike,
  text: string,
  encoding: Awaited<ReturnType<typeof firstPart>>['encoding'],
  separator: Separator | null,
): Source | Promise<Source> {
  switch (textKind(text)) {
    case 'ndjson':
      return openJsonLines(file, text, encoding);
    case 'json':
      return openJson(file, encoding);
    case 'openmetrics':
      return openExposition(file, encoding);
    default:
      return openTable(file, text, encoding, separator);
  }
}

/** @throws {BeaconError} TOO_LARGE, or BAD_INPUT when it is damaged. */
async function unpacked(file: FileLike): Promise<FileLike> {
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  let size = 0;
  let ended = false;
  const gunzip = new Gunzip((piece, last) => {
    size += piece.length;
    if (size > MAX_UNPACKED_BYTES) {
      throw new BeaconError(
        'TOO_LARGE',
        `This file unpacks to more than ${MAX_UNPACKED_BYTES / 1_000_000} MB. Unpack it and choose the unpacked file.`,
      );
    }
    pieces.push(new Uint8Array(piece));
    ended ||= last;
  });
  try {
    for (let at = 0; at < file.size; at += PIECE_BYTES) {
      gunzip.push(
        new Uint8Array(await file.slice(at, at + PIECE_BYTES).arrayBuffer()),
        at + PIECE_BYTES >= file.size,
      );
    }
  } catch (error) {
    if (error instanceof BeaconError) throw error;
    throw new BeaconError('BAD_INPUT', `The gzip file is damaged or cut off: ${(error as Error).message}.`);
  }
  if (!ended) throw new BeaconError('BAD_INPUT', 'The gzip file is cut off: its end is missing.');
  const blob = new Blob(pieces);
  return {
    name: file.name.replace(/\.gz$/i, ''),
    size: blob.size,
    slice: (from, to) => blob.slice(from, to),
  };
}
