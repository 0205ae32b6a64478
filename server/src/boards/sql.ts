import {
  audienceOf,
  boardKeys,
  type Board,
  type BoardDocument,
  type BoardLabel,
  type BoardShare,
  type ListedBoard,
  type PageOf,
} from '@vivid-beacon/core';
import type { BOARD_LISTS } from '@vivid-beacon/core/src/schemas/lists';
import { upgradeBoard } from '@vivid-beacon/core/src/boards';
import { moment, ms } from '../db/columns';
import { Conditions, findPage, SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

/** Metrics in a document that are there, but not for the asker: $1 their plants. */
export const unseenIn = (document: string): string => `array(
  select metric.id::text from metric join asset_place place on place.asset_id = metric.asset_id
  where metric.removed_at is null and not ${SEEN_PLANT} and metric.id::text in (
    select jsonb_path_query(${document}, '$.readouts[*].**.metricId') #>> '{}')
  order by metric.id) as unseen`;

/** Whether the keys of the asker open a board; null = all. */
export const SEES_BOARD = (keys: string): string =>
  `(${keys}::text[] is null or board.seen_by && ${keys}::text[])`;
export const CHANGES_BOARD = (keys: string): string =>
  `(${keys}::text[] is null or board.changed_by && ${keys}::text[])`;

const FROM = 'board join person on person.id = board.owner_id';
const THERE = 'board.removed_at is null';
const FAVOURITE = (person: string): string =>
  `exists (select 1 from board_favourite favourite
           where favourite.board_id = board.id and favourite.person_id = ${person}::bigint)`;
const IN_LIST: Readonly<Record<(typeof BOARD_LISTS)[number], (person: () => string) => string>> = {
  all: () => 'board.archived_at is null',
  favourites: (person) => `board.archived_at is null and ${FAVOURITE(person())}`,
  own: (person) => `board.archived_at is null and board.owner_id = ${person()}::bigint`,
  archive: () => 'board.archived_at is not null',
};

/** Whether a board shows a metric of an asset: by itself, or in groups of all metrics of its name. */
const SHOWS_ASSET = (asset: string): string => `exists (
  select from jsonb_array_elements(board.document -> 'readouts') readout,
              jsonb_array_elements(readout -> 'measures') measure,
              metric shown, metric own
  where shown.id = (measure ->> 'metricId')::bigint and own.asset_id = ${asset}::bigint and own.removed_at is null
    and (shown.id = own.id or (jsonb_typeof(readout -> 'groupBy') = 'object' and lower(shown.name) = lower(own.name))))`;

type Shares = { readonly shares: readonly BoardShare[] };
const withAudience = <Row extends Shares>({ shares, ...row }: Row) => ({
  ...row,
  audience: audienceOf(shares),
});

/** Which boards are listed. */
export interface BoardFilter {
  readonly list: (typeof BOARD_LISTS)[number];
  /** Words that must all stand in the title, the labels or the name of the owner. */
  readonly words: readonly string[];
  readonly label: string | undefined;
  readonly assetId: string | undefined;
}

/** Boards the asker may see: favourites first, then by title. */
export async function pageOfBoards(
  db: Reader,
  { list, words, label, assetId }: BoardFilter,
  page: PageRange,
): Promise<PageOf<ListedBoard>> {
  const { keys, personId } = db.asker;
  const conditions = new Conditions(null).plain(THERE).and(keys, SEES_BOARD);
  conditions
    .plain(IN_LIST[list](() => conditions.value(personId)))
    .and(label, (at) => `${at} = any(board.labels)`)
    .and(assetId, SHOWS_ASSET)
    .words(words, ['board.title', 'person.name', `array_to_string(board.labels, ' ')`]);
  const { items, total } = await findPage<Omit<ListedBoard, 'audience' | 'favourite'> & Shares>(
    db,
    {
      select: `select board.id, board.title, jsonb_array_length(board.document -> 'readouts') as readouts, board.labels,
                      board.shares, person.name as "ownerName", ${ms('board.updated_at', 'updatedAt')} from ${FROM}`,
      from: FROM,
      id: 'board.id',
      conditions,
      order: (value) => `${FAVOURITE(value(personId))} desc, board.title collate natural_order, board.id`,
    },
    page,
  );
  const favourites = new Set(
    await favouritesOf(
      db,
      personId,
      items.map(({ id }) => id),
    ),
  );
  return { items: items.map((row) => ({ ...withAudience(row), favourite: favourites.has(row.id) })), total };
}

/** Which of these boards are favourites of a person. */
async function favouritesOf(
  db: Queryable,
  personId: string | null,
  ids: readonly string[],
): Promise<string[]> {
  const text =
    'select board_id as id from board_favourite where person_id = $1 and board_id = any($2::bigint[])';
  return (await all<{ id: string }>(db, text, [personId, ids])).map(({ id }) => id);
}

/** Labels of boards in use that the asker may see, by name. */
export function labelsOfBoards(db: Reader): Promise<BoardLabel[]> {
  return all(
    db,
    `select label, count(*)::int as boards from board, unnest(board.labels) as label
     where ${THERE} and board.archived_at is null and ${SEES_BOARD('$1')}
     group by label order by label collate natural_order`,
    [db.asker.keys],
  );
}

/** A board the asker may see. Those saved by an older version are read as if they had been saved by this one. */
export async function findBoard(db: Reader, id: string): Promise<Board | undefined> {
  const { sites, keys, personId } = db.asker;
  const row = await one<Omit<Board, 'audience'> & Shares>(
    db,
    `select board.id, board.title, board.document, board.revision, board.owner_id as "ownerId",
            person.name as "ownerName", ${ms('board.updated_at', 'updatedAt')},
            ${ms('board.archived_at', 'archivedAt')}, board.labels, board.shares,
            ${CHANGES_BOARD('$3')} as "mayChange", ${FAVOURITE('$4')} as favourite, ${unseenIn('board.document')}
     from ${FROM} where board.id = $2 and ${THERE} and ${SEES_BOARD('$3')}`,
    [sites, id, keys, personId],
  );
  return row && { ...withAudience(row), document: upgradeBoard(row.document) };
}

interface OwnerAndShares {
  readonly ownerId: string;
  readonly shares: readonly BoardShare[];
}
const OWNER_AND_SHARES = `select owner_id as "ownerId", shares from board where id = $1 and ${THERE}`;

/** Whose a board is and with whom it is shared. @param db the asker must see the board (needBoard). */
export function findShares(db: Queryable, id: string): Promise<OwnerAndShares | undefined> {
  return one(db, OWNER_AND_SHARES, [id]);
}

/** The same, locked until the transaction ends. */
export function lockBoard(db: Queryable, id: string): Promise<OwnerAndShares | undefined> {
  return one(db, `${OWNER_AND_SHARES} for update`, [id]);
}

export async function addBoard(
  db: Queryable,
  {
    title,
    document,
    ownerId,
    shares,
    at,
  }: {
    readonly title: string;
    readonly document: BoardDocument;
    readonly ownerId: string;
    readonly shares: readonly BoardShare[];
    readonly at: number;
  },
): Promise<string> {
  const { seen, changed } = boardKeys(ownerId, shares);
  const row = await one<{ id: string }>(
    db,
    `insert into board (title, document, owner_id, updated_at, shares, seen_by, changed_by)
     values ($1, $2::jsonb, $3, $4, $5::jsonb, $6, $7) returning id`,
    [title, JSON.stringify(document), ownerId, moment(at), JSON.stringify(shares), seen, changed],
  );
  return row!.id;
}

/** @returns false when the board is gone or was changed since `revision`. */
export async function saveBoard(
  db: Queryable,
  board: {
    readonly id: string;
    readonly title: string;
    readonly document: BoardDocument;
    readonly revision: number;
    readonly at: number;
  },
): Promise<boolean> {
  const row = await one(
    db,
    `update board set title = $2, document = $3::jsonb, revision = revision + 1, updated_at = $5
     where id = $1 and revision = $4 and ${THERE} returning id`,
    [board.id, board.title, JSON.stringify(board.document), board.revision, moment(board.at)],
  );
  return row !== undefined;
}

export async function writeShares(
  db: Queryable,
  id: string,
  { ownerId, shares }: { readonly ownerId: string; readonly shares: readonly BoardShare[] },
): Promise<void> {
  const { seen, changed } = boardKeys(ownerId, shares);
  await db.query(
    'update board set owner_id = $2, shares = $3::jsonb, seen_by = $4, changed_by = $5 where id = $1',
    [id, ownerId, JSON.stringify(shares), seen, changed],
  );
}

export async function writeLabels(db: Queryable, id: string, labels: readonly string[]): Promise<void> {
  await db.query('update board set labels = $2 where id = $1', [id, labels]);
}

/** @param at null = out of the archive. What is there keeps the time since when. */
export async function writeArchived(db: Queryable, id: string, at: number | null): Promise<void> {
  await db.query(
    'update board set archived_at = case when $2::timestamptz is null then null else coalesce(archived_at, $2) end where id = $1',
    [id, at === null ? null : moment(at)],
  );
}

export async function writeFavourite(
  db: Queryable,
  personId: string,
  id: string,
  favourite: boolean,
): Promise<void> {
  await db.query(
    favourite
      ? 'insert into board_favourite (person_id, board_id) values ($1, $2) on conflict do nothing'
      : 'delete from board_favourite where person_id = $1 and board_id = $2',
    [personId, id],
  );
}

export async function removeBoard(db: Queryable, id: string, at: number): Promise<void> {
  await db.query('update board set removed_at = $2 where id = $1', [id, moment(at)]);
}

/** @returns false when there is no removed board with this id that the asker may change. */
export async function restoreBoard(db: Reader, id: string): Promise<boolean> {
  const row = await one(
    db,
    `update board set removed_at = null where id = $2 and removed_at is not null and ${CHANGES_BOARD('$1')} returning id`,
    [db.asker.keys, id],
  );
  return row !== undefined;
}

/** Names of people and plants in the shares of boards, by "person:12" and "plant:7". */
export async function namesInShares(
  db: Queryable,
  shares: readonly BoardShare[],
): Promise<Record<string, string>> {
  const people = shares.flatMap((each) => (each.to === 'person' ? [each.personId] : []));
  const plants = shares.flatMap((each) =>
    each.to === 'role' && each.plantId !== null ? [each.plantId] : [],
  );
  const rows = await all<{ key: string; name: string }>(
    db,
    `select 'person:' || id as key, name from person where id = any($1::bigint[])
     union all
     select 'plant:' || id, name from asset where id = any($2::bigint[]) and parent_id is null`,
    [people, plants],
  );
  return Object.fromEntries(rows.map(({ key, name }) => [key, name]));
}
