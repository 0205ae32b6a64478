import { BeaconError, type Board } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { findBoard } from './sql';

/** @throws {BeaconError} NOT_FOUND */
export async function needBoard(db: Reader, id: string): Promise<Board> {
  const board = await findBoard(db, id);
  if (!board) throw new BeaconError('NOT_FOUND', 'This board does not exist any more.');
  return board;
}
