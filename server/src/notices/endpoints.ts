import { MAX_NOTICES, noticesApi } from '@vivid-beacon/core/src/api/notices';
import { plantsWith } from '@vivid-beacon/core';
import { withTransaction } from '../db/database';
import { endpoints } from '../http/endpoint';
import { listNotices, recipientsOf, writeWish } from './sql';

export const noticeEndpoints = endpoints(noticesApi, {
  'GET /api/notices': async ({ app, query, person }) => {
    const all = query.of === 'all' && plantsWith(person.rights, 'analyst') === null;
    return {
      notices: await listNotices(app.pool, all ? null : person.id, MAX_NOTICES),
      standIns: app.standIns,
    };
  },

  'GET /api/notice-wish': async ({ app, person }) => {
    const [{ byEmail, byText, phone, quiet, zone, email }] = await recipientsOf(app.pool, [person.id]);
    return { byEmail, byText, phone, quiet, zone, email };
  },

  'PUT /api/notice-wish': ({ app, body, person }) =>
    withTransaction(app.pool, (db) => writeWish(db, person.id, body)),
});
