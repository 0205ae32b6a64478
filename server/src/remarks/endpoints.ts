import { remarksApi } from '@vivid-beacon/core/src/api/remarks';
import { BeaconError } from '@vivid-beacon/core';
import { findAsset } from '../assets/sql';
import { readAs } from '../db/reader';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { addRemark, listRemarks, removeRemark } from './sql';

export const remarkEndpoints = endpoints(remarksApi, {
  'GET /api/remarks': ({ db, query }) => listRemarks(db, [query.assetId], query.from, query.to),

  'POST /api/remarks': async ({ app, db, body, person }) => {
    if (!(await findAsset(db, body.assetId))) {
      throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
    }
    const remark = { ...body, authorId: person.id, at: app.now() };
    const id = await changeAndNotify(
      app.pool,
      'logs',
      (own) => addRemark(own, remark),
      (made) => [made],
    );
    return { id };
  },

  'DELETE /api/remarks/:id': async ({ app, db, params }) => {
    await changeAndNotify(
      app.pool,
      'logs',
      async (own) => {
        if (!(await removeRemark(readAs(own, db.asker), params.id))) {
          throw new BeaconError('NOT_FOUND', 'This remark does not exist any more.');
        }
      },
      () => [params.id],
    );
  },
});
