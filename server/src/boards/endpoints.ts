import { boardsApi } from '@vivid-beacon/core/src/api/boards';
import {
  BeaconError,
  searchWords,
  type BoardVersion,
  type PageOf,
  type SignedInPerson,
} from '@vivid-beacon/core';
import { boardChanges } from '@vivid-beacon/core/src/boards';
import type pg from 'pg';
import { findAsset } from '../assets/sql';
import { readAs, type Reader } from '../db/reader';
import type { AppContext } from '../http/appContext';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import {
  checkDocument,
  checkSharing,
  createBoard,
  holdBoard,
  needBoard,
  shareBoard,
  sharingOf,
} from './boards';
import {
  findShares,
  labelsOfBoards,
  pageOfBoards,
  removeBoard,
  restoreBoard,
  saveBoard,
  writeArchived,
  writeFavourite,
  writeLabels,
} from './sql';
import { countVersions, findVersion, keepVersion, versionsOfBoard } from './versionsSql';

/** Changes a board that is there and may be changed, and tells everybody. */
function changeBoard<T>(
  app: AppContext,
  id: string,
  person: SignedInPerson,
  work: (db: pg.PoolClient) => Promise<T>,
): Promise<T> {
  return changeAndNotify(
    app.pool,
    'boards',
    async (db) => {
      await holdBoard(db, id, person);
      return work(db);
    },
    () => [id],
  );
}

const changedMeanwhile = (): BeaconError =>
  new BeaconError(
    'CHANGED_MEANWHILE',
    'Somebody else has saved this board since you opened it. Reload it to see their changes.',
  );

/** @throws {BeaconError} NOT_FOUND */
async function needVersion(db: Reader, id: string, revision: string) {
  await needBoard(db, id);
  const version = await findVersion(db, id, Number(revision));
  if (!version) throw new BeaconError('NOT_FOUND', `Version ${revision} of this board is not kept any more.`);
  return version;
}

export const boardEndpoints = endpoints(boardsApi, {
  'GET /api/boards': async ({ db, query: { search, list, label, assetId, ...page } }) => {
    // Of an asset that the caller may not see nothing is said, not even which boards show it.
    if (assetId !== undefined && !(await findAsset(db, assetId)))
      throw new BeaconError('NOT_FOUND', 'This asset does not exist.');
    return pageOfBoards(db, { list, label, assetId, words: searchWords(search) }, page);
  },

  'GET /api/boards/labels': ({ db }) => labelsOfBoards(db),

  'GET /api/boards/:id': ({ db, params }) => needBoard(db, params.id),

  'POST /api/boards': async ({ app, db, body, person }) => {
    const { title, document, shares } = body;
    checkDocument(document);
    checkSharing(person, shares);
    const at = app.now();
    const id = await changeAndNotify(
      app.pool,
      'boards',
      (own) => createBoard(own, { title, document, shares, ownerId: person.id, at }),
      (made) => [made],
    );
    return needBoard(db, id);
  },

  'PUT /api/boards/:id': async ({ app, db, params: { id }, body, person }) => {
    const { title, document, revision } = body;
    checkDocument(document);
    const at = app.now();
    await changeBoard(app, id, person, async (own) => {
      if (!(await saveBoard(own, { id, title, document, revision, at }))) throw changedMeanwhile();
      await keepVersion(own, { id, personId: person.id, at });
    });
    return needBoard(db, id);
  },

  'DELETE /api/boards/:id': ({ app, params: { id }, person }) =>
    changeBoard(app, id, person, (own) => removeBoard(own, id, app.now())),

  'POST /api/boards/:id/restoration': async ({ app, db, params: { id } }) => {
    await changeAndNotify(
      app.pool,
      'boards',
      async (own) => {
        if (!(await restoreBoard(readAs(own, db.asker), id))) {
          throw new BeaconError('NOT_FOUND', 'There is no such removed board that you may change.');
        }
      },
      () => [id],
    );
  },

  'GET /api/boards/:id/sharing': async ({ db, params: { id } }) => {
    const { ownerId, mayChange } = await needBoard(db, id);
    if (!mayChange) {
      throw new BeaconError('NOT_ALLOWED', 'With whom a board is shared is told to those who may change it.');
    }
    const found = await findShares(db, id);
    return sharingOf(db, found?.ownerId ?? ownerId, found?.shares ?? []);
  },

  'PUT /api/boards/:id/sharing': ({ app, params: { id }, body, person }) =>
    changeBoard(app, id, person, (own) => shareBoard(own, id, person, body)),

  'PUT /api/boards/:id/labels': ({ app, params: { id }, body, person }) =>
    changeBoard(app, id, person, (own) => writeLabels(own, id, body.labels)),

  'PUT /api/boards/:id/archived': ({ app, params: { id }, body, person }) =>
    changeBoard(app, id, person, (own) => writeArchived(own, id, body.archived ? app.now() : null)),

  'PUT /api/boards/:id/favourite': async ({ app, db, params: { id }, body, person }) => {
    await needBoard(db, id);
    await writeFavourite(app.pool, person.id, id, body.favourite);
  },

  'GET /api/boards/:id/versions': async ({
    app,
    db,
    params: { id },
    query,
  }): Promise<PageOf<BoardVersion>> => {
    await needBoard(db, id);
    const total = await countVersions(app.pool, id);
    // One more, for what the last of them changed.
    const kept = await versionsOfBoard(app.pool, id, { ...query, limit: query.limit + 1 });
    const items = kept.slice(0, query.limit).map(({ document, ...version }, i) => {
      const before = kept[i + 1];
      return {
        ...version,
        changes: before ? boardChanges(before, { title: version.title, document }) : null,
      };
    });
    return { items, total };
  },

  'GET /api/boards/:id/versions/:revision': ({ db, params }) => needVersion(db, params.id, params.revision),

  'POST /api/boards/:id/versions/:revision/restoration': async ({ app, db, params, body, person }) => {
    const { id } = params;
    const { title, document, revision: restoredFrom } = await needVersion(db, id, params.revision);
    const at = app.now();
    await changeBoard(app, id, person, async (own) => {
      if (!(await saveBoard(own, { id, title, document, revision: body.revision, at })))
        throw changedMeanwhile();
      await keepVersion(own, { id, personId: person.id, at, restoredFrom });
    });
    return needBoard(db, id);
  },
});
