import type { Board, BoardDocument, ListedBoard, PageOf } from '@vivid-beacon/core';
import { upgradeBoard } from '@vivid-beacon/core/src/boards';
import { moment, ms } from '../db/columns';
import { Conditions, findPage, SEEN_PLANT } from '../db/conditions';
import { one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

/** Metrics on a board that are there, but not for the asker: $1 their plants. */
const UNSEEN = `array(
  select metric.id::text from metric join asset_place place on place.asset_id = metric.asset_id
  where metric.removed_at is null and not ${SEEN_PLANT} and metric.id::text in (
    select jsonb_path_query(board.document, '$.readouts[*].**.metricId') #>> '{}')
  order by metric.id) as unseen`;

const BOARD = `board.id, board.title, board.document, board.revision, person.name as "ownerName",
               ${ms('board.updated_at', 'updatedAt')}`;
const FROM = 'board join person on person.id = board.owner_id';
const THERE = 'board.removed_at is null';

/** Boards saved by an older version are read as if they had been saved by this one. */
const asBoard = (row: Board): Board => ({ ...row, document: upgradeBoard(row.document) });

/** Boards by title. @param words each must stand somewhere in the title or the name of the owner. */
export function pageOfBoards(
  db: Reader,
  words: readonly string[],
  page: PageRange,
): Promise<PageOf<ListedBoard>> {
  return findPage(
    db,
    {
      select: `select board.id, board.title, jsonb_array_length(board.document -> 'readouts') as readouts,
                      person.name as "ownerName", ${ms('board.updated_at', 'updatedAt')} from ${FROM}`,
      from: FROM,
      id: 'board.id',
      conditions: new Conditions(null).plain(THERE).words(words, ['board.title', 'person.name']),
      order: 'board.title collate natural_order, board.id',
    },
    page,
  );
}

export async function findBoard(db: Reader, id: string): Promise<Board | undefined> {
  const text = `select ${BOARD}, ${UNSEEN} from ${FROM} where board.id = $2 and ${THERE}`;
  const row = await one<Board>(db, text, [db.asker.sites, id]);
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
     where id = $1 and revision = $4 and ${THERE} returning id`,
    [board.id, board.title, JSON.stringify(board.document), board.revision, moment(board.at)],
  );
  return row !== undefined;
}

export async function removeBoard(db: Queryable, id: string, at: number): Promise<boolean> {
  const row = await one(db, `update board set removed_at = $2 where id = $1 and ${THERE} returning id`, [
    id,
    moment(at),
  ]);
  return row !== undefined;
}
