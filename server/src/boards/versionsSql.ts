import type { BoardDocument, WholeBoardVersion } from '@vivid-beacon/core';
import { upgradeBoard } from '@vivid-beacon/core/src/boards';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';
import { unseenIn } from './sql';

/** What one person saves within this time is one version. */
const ONE_VERSION = `interval '10 minutes'`;
const KEPT_VERSIONS = 200;

/**
 * Keeps the board as it is now as a version, in the caller's transaction. Earlier saves of the same person that belong to the
 * same version are replaced; the oldest of too many are dropped.
 *
 * @param restoredFrom the revision that was gone back to; such a version stays as it is.
 */
export async function keepVersion(
  db: Queryable,
  {
    id,
    personId,
    at,
    restoredFrom = null,
  }: {
    readonly id: string;
    readonly personId: string;
    readonly at: number;
    readonly restoredFrom?: number | null;
  },
): Promise<void> {
  const same = await one<{ begun: Date }>(
    db,
    `delete from board_version version
     where version.board_id = $1 and version.saved_by = $2 and version.restored_from is null and $4::int is null
       and version.begun_at > $3::timestamptz - ${ONE_VERSION}
       and version.revision = (select max(revision) from board_version where board_id = $1)
     returning version.begun_at as begun`,
    [id, personId, moment(at), restoredFrom],
  );
  await db.query(
    `insert into board_version (board_id, revision, title, document, saved_by, begun_at, saved_at, restored_from)
     select id, revision, title, document, $2, $3, $4, $5 from board where id = $1`,
    [id, personId, same?.begun ?? moment(at), moment(at), restoredFrom],
  );
  await db.query(
    `delete from board_version where board_id = $1 and revision <= (
       select revision from board_version where board_id = $1 order by revision desc offset $2 limit 1)`,
    [id, KEPT_VERSIONS],
  );
}

/** A version as it is kept. */
export interface KeptVersion {
  readonly revision: number;
  readonly title: string;
  readonly document: BoardDocument;
  readonly savedBy: string | null;
  readonly begunAt: number;
  readonly savedAt: number;
  readonly restoredFrom: number | null;
}

/** Versions of a board, the newest first. @param db the asker must see the board (needBoard). */
export async function versionsOfBoard(
  db: Queryable,
  boardId: string,
  { offset, limit }: PageRange,
): Promise<KeptVersion[]> {
  const rows = await all<KeptVersion>(
    db,
    `select version.revision, version.title, version.document, person.name as "savedBy", ${ms('version.begun_at', 'begunAt')},
            ${ms('version.saved_at', 'savedAt')}, version.restored_from as "restoredFrom"
     from board_version version left join person on person.id = version.saved_by
     where version.board_id = $1 order by version.revision desc offset $2::int limit $3::int`,
    [boardId, offset, limit],
  );
  return rows.map((row) => ({ ...row, document: upgradeBoard(row.document) }));
}

export async function countVersions(db: Queryable, boardId: string): Promise<number> {
  const text = 'select count(*)::int as n from board_version where board_id = $1';
  return (await one<{ n: number }>(db, text, [boardId]))!.n;
}

/** One version. @param db the asker must see the board (needBoard). */
export async function findVersion(
  db: Reader,
  boardId: string,
  revision: number,
): Promise<WholeBoardVersion | undefined> {
  const row = await one<WholeBoardVersion>(
    db,
    `select version.revision, version.title, version.document, person.name as "savedBy",
            ${ms('version.saved_at', 'savedAt')}, ${unseenIn('version.document')}
     from board_version version left join person on person.id = version.saved_by
     where version.board_id = $2 and version.revision = $3`,
    [db.asker.sites, boardId, revision],
  );
  return row && { ...row, document: upgradeBoard(row.document) };
}
