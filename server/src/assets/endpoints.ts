import { assetsApi } from '@vivid-beacon/core/src/api/assets';
import { readAs } from '../db/reader';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { dropAsset, editAsset, importAssets, makeAsset } from './changes';
import { listAssetPage } from './list';
import { attributeValues } from './searchSql';
import { assetsNamed } from './sql';

export const assetEndpoints = endpoints(assetsApi, {
  'GET /api/assets': ({ app, db, query }) => listAssetPage(db, query, app.now()),

  'GET /api/assets/attributes': ({ db }) => attributeValues(db),

  'POST /api/assets/named': ({ db, body }) => assetsNamed(db, body.names),

  'POST /api/assets': ({ app, db, body }) =>
    changeAndNotify(app.pool, 'metrics', (own) => makeAsset(readAs(own, db.asker), body)),

  'PUT /api/assets/:id': ({ app, db, params, body }) =>
    changeAndNotify(app.pool, 'metrics', (own) => editAsset(readAs(own, db.asker), params.id, body)),

  'DELETE /api/assets/:id': async ({ app, db, params }) => {
    await changeAndNotify(app.pool, 'metrics', (own) =>
      dropAsset(readAs(own, db.asker), params.id, app.now()),
    );
  },

  'POST /api/assets/list': ({ app, db, body }) =>
    changeAndNotify(app.pool, 'metrics', (own) => importAssets(readAs(own, db.asker), body.rows)),
});
