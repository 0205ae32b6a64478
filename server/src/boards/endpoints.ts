import * as yup from 'yup';
import { BeaconError, checkBand, type Board, type BoardDocument, countedNumber } from '@vivid-beacon/core';
import { boardDocumentSchema, boardTitleSchema } from '@vivid-beacon/core/src/engine';
import type { AppContext } from '../http/appContext';
import { endpoint } from '../http/endpoint';
import { withTransaction } from '../db/database';
import { changeAndNotify } from '../live/changeAndNotify';
import { notify } from '../live/notify';
import { addBoard, findBoard, listBoards, removeBoard, saveBoard } from './sql';

async function needBoard(app: AppContext, id: string): Promise<Board> {
  const board = await findBoard(app.pool, id);
  if (!board) throw new BeaconError('NOT_FOUND', 'This board does not exist any more.');
  return board;
}

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

export const boardEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/boards',
    access: 'viewer',
    summary: 'Lists boards.',
    answer: '[{ id, title, document, revision, ownerName, updatedAt }]',
    handle: ({ app }) => listBoards(app.pool),
  }),
  endpoint({
    method: 'get',
    path: '/api/boards/:id',
    access: 'viewer',
    summary: 'One board.',
    answer: 'Board. 404 NOT_FOUND.',
    handle: ({ app, params }) => needBoard(app, params.id),
  }),
  endpoint({
    method: 'post',
    path: '/api/boards',
    access: 'analyst',
    summary: 'Adds a board.',
    answer: 'Board. 422 BAD_INPUT names the readout and field that is wrong.',
    body: yup.object({ title: boardTitleSchema, document: boardDocumentSchema.required() }).noUnknown(),
    handle: async ({ app, body, person }) => {
      const document = body.document as unknown as BoardDocument;
      checkDocument(document);
      const board = { title: body.title, document, ownerId: person.id, at: app.now() };
      const id = await changeAndNotify(
        app.pool,
        'boards',
        (db) => addBoard(db, board),
        (made) => [made],
      );
      return needBoard(app, id);
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/boards/:id',
    access: 'analyst',
    summary: 'Saves a board, if nobody has changed it since the revision it was read at.',
    answer: 'Board. 409 CHANGED_MEANWHILE.',
    body: yup
      .object({
        title: boardTitleSchema,
        document: boardDocumentSchema.required(),
        revision: countedNumber().min(1).required(),
      })
      .noUnknown(),
    handle: async ({ app, params, body }) => {
      const document = body.document as unknown as BoardDocument;
      checkDocument(document);
      const { title, revision } = body;
      const board = { id: params.id, title, document, revision, at: app.now() };
      const saved = await withTransaction(app.pool, async (db) => {
        const done = await saveBoard(db, board);
        if (done) await notify(db, 'boards', [params.id]);
        return done;
      });
      if (!saved) {
        await needBoard(app, params.id);
        throw new BeaconError(
          'CHANGED_MEANWHILE',
          'Somebody else has saved this board since you opened it. Reload it to see their changes.',
        );
      }
      return needBoard(app, params.id);
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/boards/:id',
    access: 'analyst',
    summary: 'Removes a board.',
    answer: 'Nothing (204).',
    handle: async ({ app, params }) => {
      await changeAndNotify(
        app.pool,
        'boards',
        async (db) => {
          if (!(await removeBoard(db, params.id)))
            throw new BeaconError('NOT_FOUND', 'This board does not exist any more.');
        },
        () => [params.id],
      );
    },
  }),
];
