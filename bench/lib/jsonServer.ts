import type { AddressInfo } from 'node:net';
import express from 'express';
import { openPool } from '@vivid-beacon/server';
import { pino } from 'pino';
import { pinoHttp } from 'pino-http';
import { securityHeaders, sessions } from '@vivid-beacon/server/src/http/security';

/**
 * The bare server to compare with: Express with the log, headers, sessions and sign-in of every answer of the
 * product, and JSON built by PostgreSQL.
 */
export async function startJsonServer(databaseUrl: string): Promise<{ url: string; stop: () => void }> {
  const pool = openPool(databaseUrl, () => undefined);
  const app = express();
  app.use(pinoHttp({ logger: pino({ level: 'error' }) }));
  app.use(securityHeaders());
  app.use(sessions(pool, 'x'.repeat(40), false));
  app.get('/rows', async (request, response) => {
    await pool.query('select id, name, role from person where id = $1', [request.session.personId]);
    const { rows } = await pool.query<{ text: string }>(
      `select json_build_object('t', json_agg((extract(epoch from t) * 1000)::bigint), 'n', json_agg(n), 'sum', json_agg(sum),
                                'min', json_agg(min), 'max', json_agg(max))::text as text from json_rows`,
    );
    response.setHeader('Content-Type', 'application/json');
    response.end(rows[0].text);
  });
  const server = await new Promise<ReturnType<typeof app.listen>>((resolve) => {
    const listening = app.listen(0, '127.0.0.1', () => resolve(listening));
  });
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/rows`,
    stop: () => {
      server.close();
      server.closeAllConnections();
      void pool.end();
    },
  };
}
