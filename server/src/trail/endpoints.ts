import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { trailApi } from '@vivid-beacon/core/src/api/trail';
import { searchWords } from '@vivid-beacon/core';
import { AS_OF_NOW, withTransaction } from '../db/database';
import { writeSetting } from '../db/settings';
import { endpoints, SENT } from '../http/endpoint';
import { checkTrail, pageOfTrail, readTrail, subjectsOfTrail, type TrailFilter } from './sql';
import { KEPT_DAYS, keptDays } from './kept';

const filterOf = ({
  search,
  ...rest
}: Omit<TrailFilter, 'words'> & { readonly search?: string }): TrailFilter => ({
  ...rest,
  words: searchWords(search),
});

export const trailEndpoints = endpoints(trailApi, {
  'GET /api/trail': ({ app, query: { offset, limit, ...filter } }) =>
    pageOfTrail(app.pool, filterOf(filter), { offset, limit }),

  'GET /api/trail/subjects': ({ app }) => subjectsOfTrail(app.pool),

  'GET /api/trail/export': async ({ app, query, response }) => {
    const { pool } = app;
    response.setHeader('Content-Type', 'application/x-ndjson');
    response.setHeader('Content-Disposition', 'attachment; filename="trail.ndjson"');
    async function* lines(): AsyncGenerator<string> {
      for await (const entry of readTrail(pool, filterOf(query))) yield `${JSON.stringify(entry)}\n`;
    }
    await pipeline(Readable.from(lines()), response);
    return SENT;
  },

  'POST /api/trail/check': ({ app }) => withTransaction(app.pool, checkTrail, AS_OF_NOW),

  'GET /api/trail/setting': async ({ app }) => ({ days: await keptDays(app.pool) }),

  'PUT /api/trail/setting': async ({ app, body }) => {
    await withTransaction(app.pool, (db) => writeSetting(db, KEPT_DAYS, body.days));
  },
});
