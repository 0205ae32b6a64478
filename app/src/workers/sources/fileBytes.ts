import { isArchive, isCompoundFile, refuseOtherFiles } from '@vivid-beacon/core/src/intakeFiles';
import type { FileLike } from './source';

/**
 * The first bytes of a file. @throws {BeaconError} BAD_INPUT for a file that cannot hold a table, naming its
 * kind.
 */
export async function firstBytes(file: FileLike): Promise<Uint8Array> {
  const bytes = new Uint8Array(await file.slice(0, 4096).arrayBuffer());
  refuseOtherFiles(bytes);
  return bytes;
}

/** Whether this is a spreadsheet, by its first bytes. */
export function isSheet(bytes: Uint8Array): boolean {
  return isArchive(bytes) || isCompoundFile(bytes);
}
