import type { Board, BoardDocument } from '@vivid-beacon/core';
import { upgradeBoard } from '@vivid-beacon/core/src/engine';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

const BOARD = `board.id, board.title, board.document, board.revision, person.name as "ownerName",
               ${ms('board.updated_at', 'updatedAt')}`;
const FROM = 'from board join person on person.id = board.owner_id';

/** Boards saved by an older version are read as if they had been saved by this one. */
const asBoard = (row: Board): Board => ({ ...row, document: upgradeBoard(row.document) });

export async function listBoards(db: Queryable): Promise<Board[]> {
  return (await all<Board>(db, `select ${BOARD} ${FROM} order by board.title`)).map(asBoard);
}

export async function findBoard(db: Queryable, id: string): Promise<Board | undefined> {
  const row = await one<Board>(db, `select ${BOARD} ${FROM} where board.id = $1`, [id]);
  return row && asBoard(row);
}

export async function addBoard(
  db: Queryable,
  board: { title: string; document: BoardDocument; ownerId: string; at: number },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    'insert into board (title, document, owner_id, updated_at) values ($1, $2::jsonb, $3, $4) returning id',
    [board.title, JSON.stringify(board.document), board.ownerId, moment(board.at)],
  );
  return row!.id;
}

/** @returns false when the board is gone or was changed since `revision`. */
export async function saveBoard(
  db: Queryable,
  board: { id: string; title: string; document: BoardDocument; revision: number; at: number },
): Promise<boolean> {
  const row = await one(
    db,
    `update board set title = $2, document = $3::jsonb, revision = revision + 1, updated_at = $5
     where id = $1 and revision = $4 returning id`,
    [board.id, board.title, JSON.stringify(board.document), board.revision, moment(board.at)],
  );
  return row !== undefined;
}

export async function removeBoard(db: Queryable, id: string): Promise<boolean> {
  return (await one(db, 'delete from board where id = $1 returning id', [id])) !== undefined;
}
