import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import { trailApi, TRAIL_DAYS } from '@vivid-beacon/core/src/api/trail';
import { searchWords } from '@vivid-beacon/core';
import { withTransaction, type Queryable } from '../db/database';
import { readSetting, writeSetting } from '../db/settings';
import { endpoints, SENT } from '../http/endpoint';
import { checkTrail, cutTrail, pageOfTrail, readTrail, subjectsOfTrail, type TrailFilter } from './sql';

/** Setting: for how many days the trail is kept. */
const KEPT_DAYS = 'trailDays';

async function keptDays(db: Queryable): Promise<number> {
  return (await readSetting<number>(db, KEPT_DAYS)) ?? TRAIL_DAYS.usual;
}

/** Cuts off what is past its time. */
export function tidyTrail(db: Queryable, now: number): Promise<number> {
  return keptDays(db).then((days) => cutTrail(db, days, now));
}

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

  'POST /api/trail/check': ({ app }) => checkTrail(app.pool),

  'GET /api/trail/setting': async ({ app }) => ({ days: await keptDays(app.pool) }),

  'PUT /api/trail/setting': async ({ app, body }) => {
    await withTransaction(app.pool, (db) => writeSetting(db, KEPT_DAYS, body.days));
  },
});
