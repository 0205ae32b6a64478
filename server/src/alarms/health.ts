import { alarmHealthApi } from '@vivid-beacon/core/src/api/alarms';
import { alarmHealth, checkHealth, DAY_MS } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { readSetting, writeSetting } from '../db/settings';
import { endpoints } from '../http/endpoint';
import { alarmsSince, annunciations } from './annunciationSql';
import { listRules } from './rulesSql';

/** A rate told from less than a day would be a guess. */
const SHORTEST_MS = DAY_MS;

/** Name of the setting that holds how many people answer at the same time. */
const OPERATORS = 'alarmOperators';

async function operatorsKept(db: Queryable): Promise<number> {
  return (await readSetting<number>(db, OPERATORS)) ?? 1;
}

export const alarmHealthEndpoints = endpoints(alarmHealthApi, {
  'GET /api/alarm-health': async ({ app, query }) => {
    const end = app.now();
    // Days before the first rule would thin the rates out: there was nothing that could have called.
    const since = (await alarmsSince(app.pool)) ?? 0;
    const start = Math.min(Math.max(end - query.days * DAY_MS, since), end - SHORTEST_MS);
    const window = { start, end };
    const { alarms, names } = await annunciations(app.pool, window);
    const rules = await listRules(app.pool);
    const operators = query.operators ?? (await operatorsKept(app.pool));
    const health = alarmHealth(alarms, window, operators);
    return { health, checks: checkHealth(health, rules.length), rules: names };
  },

  'PUT /api/alarm-health/operators': async ({ app, body }) => {
    await writeSetting(app.pool, OPERATORS, body.operators);
  },
});
