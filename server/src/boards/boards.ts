import {
  BeaconError,
  boardKeys,
  checkBand,
  highestRole,
  allows,
  mayShare,
  shareKey,
  type Board,
  type BoardDocument,
  type BoardShare,
  type BoardShared,
  type SignedInPerson,
  heldKeys,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import type { Reader } from '../db/reader';
import { addBoard, findBoard, lockBoard, namesInShares, writeLabels, writeShares } from './sql';
import { keepVersion } from './versionsSql';

const gone = (): BeaconError =>
  new BeaconError('NOT_FOUND', 'This board does not exist any more, or is not shared with you.');

/** @throws {BeaconError} NOT_FOUND, also for a board that is not shared with the asker */
export async function needBoard(db: Reader, id: string): Promise<Board> {
  const board = await findBoard(db, id);
  if (!board) throw gone();
  return board;
}

/**
 * Locks a board for a change of it.
 * @throws {BeaconError} NOT_FOUND for those who do not see it; NOT_ALLOWED for those who only see it
 */
export async function holdBoard(db: Queryable, id: string, person: SignedInPerson) {
  const board = await lockBoard(db, id);
  const held = heldKeys(person);
  const opens = (keys: readonly string[]): boolean => keys.some((key) => held.includes(key));
  const keys = board && boardKeys(board.ownerId, board.shares);
  if (!board || !keys || !opens(keys.seen)) throw gone();
  if (!opens(keys.changed)) {
    throw new BeaconError(
      'NOT_ALLOWED',
      'This board is shared with you to see, not to change. Its owner can share it for changing; a copy of it is yours.',
    );
  }
  return board;
}

/** Adds a board with its first version, in the caller's transaction. @returns its id. */
export async function createBoard(
  db: Queryable,
  { labels = [], ...board }: Parameters<typeof addBoard>[1] & { readonly labels?: readonly string[] },
): Promise<string> {
  const id = await addBoard(db, board);
  if (labels.length > 0) await writeLabels(db, id, labels);
  await keepVersion(db, { id, personId: board.ownerId, at: board.at });
  return id;
}

/** @throws {BeaconError} BAD_INPUT with the path of the wrong band */
export function checkDocument(document: BoardDocument): void {
  document.readouts.forEach((readout, i) => {
    if (!readout.band) return;
    try {
      checkBand(readout.band);
    } catch (error) {
      const { message, path } = error as BeaconError;
      throw new BeaconError('BAD_INPUT', message, `document.readouts[${i}].${path}`);
    }
  });
}

/** @throws {BeaconError} NOT_ALLOWED when somebody shares who is an analyst nowhere */
export function checkSharing(person: SignedInPerson, shares: readonly BoardShare[]): void {
  const role = highestRole(person.rights);
  if (shares.length > 0 && (role === null || !allows(role, 'analyst'))) {
    throw new BeaconError(
      'NOT_ALLOWED',
      'To share a board takes the role analyst at a plant. Without it your boards are for you alone.',
    );
  }
}

/** With whom a board is shared, with names. */
export async function sharingOf(
  db: Queryable,
  ownerId: string,
  shares: readonly BoardShare[],
): Promise<BoardShared> {
  const owner: BoardShare = { to: 'person', personId: ownerId, may: 'change' };
  return { ownerId, shares: [...shares], names: await namesInShares(db, [owner, ...shares]) };
}

/**
 * Shares a board, in the caller's transaction.
 * @throws {BeaconError} NOT_FOUND, NOT_ALLOWED; BAD_INPUT for people and plants that do not exist
 */
export async function shareBoard(
  db: Queryable,
  id: string,
  person: SignedInPerson,
  next: { readonly ownerId: string; readonly shares: readonly BoardShare[] },
): Promise<BoardShared> {
  const board = await holdBoard(db, id, person);
  if (!mayShare(board.ownerId, person)) {
    throw new BeaconError(
      'NOT_ALLOWED',
      'Only the owner of this board and administrators of every plant can share it.',
    );
  }
  // To share less, or with nobody, is always possible.
  const line = (share: BoardShare): string => `${shareKey(share)} ${share.may}`;
  const before = new Set(board.shares.map(line));
  checkSharing(
    person,
    next.shares.filter((each) => !before.has(line(each))),
  );
  const shared = await sharingOf(db, next.ownerId, next.shares);
  const missing = [
    ...(`person:${next.ownerId}` in shared.names ? [] : [{ path: 'ownerId', what: 'person' }]),
    ...next.shares.flatMap((each, i) => {
      const key = each.to === 'person' ? `person:${each.personId}` : each.plantId && `plant:${each.plantId}`;
      return key === null || key in shared.names
        ? []
        : [{ path: `shares[${i}]`, what: each.to === 'person' ? 'person' : 'plant' }];
    }),
  ];
  if (missing.length > 0) {
    throw new BeaconError('BAD_INPUT', `This ${missing[0].what} does not exist.`, missing[0].path);
  }
  await writeShares(db, id, next);
  return shared;
}
