import { boardsApi } from '@vivid-beacon/core/src/api/boards';
import {
  BeaconError,
  checkBand,
  searchWords,
  type BoardDocument,
  type SignedInPerson,
} from '@vivid-beacon/core';
import { callerOf, readAs, type Reader } from '../db/reader';
import type { AppContext } from '../http/appContext';
import { endpoints } from '../http/endpoint';
import { withTransaction } from '../db/database';
import { changeAndNotify } from '../live/changeAndNotify';
import { notify } from '../live/notify';
import { needBoard } from './boards';
import { addBoard, pageOfBoards, removeBoard, saveBoard } from './sql';

function checkDocument(document: BoardDocument): void {
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

/** What a person sees, whatever role it took to change the board. */
const seenBy = (app: AppContext, person: SignedInPerson): Reader =>
  readAs(app.pool, callerOf(person, 'viewer'));

export const boardEndpoints = endpoints(boardsApi, {
  'GET /api/boards': ({ db, query: { search, ...page } }) => pageOfBoards(db, searchWords(search), page),

  'GET /api/boards/:id': ({ db, params }) => needBoard(db, params.id),

  'POST /api/boards': async ({ app, body, person }) => {
    const { document } = body;
    checkDocument(document);
    const board = { title: body.title, document, ownerId: person.id, at: app.now() };
    const id = await changeAndNotify(
      app.pool,
      'boards',
      (db) => addBoard(db, board),
      (made) => [made],
    );
    return needBoard(seenBy(app, person), id);
  },

  'PUT /api/boards/:id': async ({ app, params, body, person }) => {
    const { document } = body;
    checkDocument(document);
    const { title, revision } = body;
    const board = { id: params.id, title, document, revision, at: app.now() };
    const saved = await withTransaction(app.pool, async (db) => {
      const done = await saveBoard(db, board);
      if (done) await notify(db, 'boards', [params.id]);
      return done;
    });
    if (!saved) {
      await needBoard(seenBy(app, person), params.id);
      throw new BeaconError(
        'CHANGED_MEANWHILE',
        'Somebody else has saved this board since you opened it. Reload it to see their changes.',
      );
    }
    return needBoard(seenBy(app, person), params.id);
  },

  'DELETE /api/boards/:id': async ({ app, params }) => {
    await changeAndNotify(
      app.pool,
      'boards',
      async (db) => {
        if (!(await removeBoard(db, params.id, app.now())))
          throw new BeaconError('NOT_FOUND', 'This board does not exist any more.');
      },
      () => [params.id],
    );
  },
});
