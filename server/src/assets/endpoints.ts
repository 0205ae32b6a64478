import { assetListSchema } from '@vivid-beacon/core';
import { assetImportSchema, assetSchema } from '@vivid-beacon/core/src/engine';
import { readAs } from '../db/reader';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { dropAsset, editAsset, importAssets, makeAsset, type AssetImportRow } from './changes';
import { listPage } from './list';
import { attributeValues } from './searchSql';
import type { AssetParts } from './sql';

const ANSWER = '{ id, parentId, name, kind, zone, ownZone, plantId, path, title, attributes }';

export const assetEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/assets',
    access: 'viewer',
    summary:
      'Assets in the order of their full names: by id, below one, or found by the beginnings of words in name, kind and facts.',
    answer: `{ items: [${ANSWER}], total }; with facts also children, metrics and troubled (feeds at or below that need a look)`,
    query: assetListSchema,
    handle: ({ app, db, query }) => listPage(db, query, app.now()),
  }),
  endpoint({
    method: 'get',
    path: '/api/assets/attributes',
    access: 'viewer',
    summary: 'Attributes that assets have, with the values they take.',
    answer: '[{ name, values: [] (the first 60, in order), many: whether there are more }]',
    handle: ({ db }) => attributeValues(db),
  }),
  endpoint({
    method: 'post',
    path: '/api/assets',
    access: 'analyst',
    summary: 'Adds an asset. One without a parent is a plant and needs a time zone.',
    answer: ANSWER,
    body: assetSchema,
    handle: ({ app, db, body }) =>
      changeAndNotify(app.pool, 'metrics', (own) => makeAsset(readAs(own, db.asker), body as AssetParts)),
  }),
  endpoint({
    method: 'put',
    path: '/api/assets/:id',
    access: 'analyst',
    summary: 'Renames, moves or describes an asset.',
    answer: `${ANSWER}. 422 BAD_INPUT when the name is taken or it would stand under itself.`,
    body: assetSchema,
    handle: ({ app, db, params, body }) =>
      changeAndNotify(app.pool, 'metrics', (own) =>
        editAsset(readAs(own, db.asker), params.id, body as AssetParts),
      ),
  }),
  endpoint({
    method: 'delete',
    path: '/api/assets/:id',
    access: 'analyst',
    summary: 'Takes an asset away that nothing hangs on.',
    answer: 'Nothing (204). 409 WRONG_STATE says what still hangs on it.',
    handle: async ({ app, params }) => {
      await changeAndNotify(app.pool, 'metrics', (db) => dropAsset(db, params.id));
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/assets/list',
    access: 'analyst',
    summary: 'Adds a list of assets by path from the plant down, for example from a file.',
    answer: '{ added, changed, refused: [{ line, reason }] }',
    body: assetImportSchema,
    limit: 5_000_000,
    handle: ({ app, db, body }) =>
      changeAndNotify(app.pool, 'metrics', (own) =>
        importAssets(readAs(own, db.asker), body.rows as unknown as AssetImportRow[]),
      ),
  }),
];
