import { alarmHealthApi } from '@vivid-beacon/core/src/api/alarms';
import { alarmHealth, checkHealth, DAY_MS } from '@vivid-beacon/core';
import { withTransaction, type Queryable } from '../db/database';
import { readSetting, writeSetting } from '../db/settings';
import { endpoints } from '../http/endpoint';
import { alarmsSince, annunciations } from './annunciationSql';
import { countRules } from './rulesSql';

/** A rate from less than a day would be a guess. */
const MIN_MS = DAY_MS;

/** Setting: number of people answering alarms at the same time. */
const OPERATORS = 'alarmOperators';

async function operatorsKept(db: Queryable): Promise<number> {
  return (await readSetting<number>(db, OPERATORS)) ?? 1;
}

export const alarmHealthEndpoints = endpoints(alarmHealthApi, {
  'GET /api/alarm-health': async ({ app, db, query }) => {
    const end = app.now();
    // Days before the first rule would dilute the rates.
    const since = (await alarmsSince(db)) ?? 0;
    const start = Math.min(Math.max(end - query.days * DAY_MS, since), end - MIN_MS);
    const window = { start, end };
    const { alarms, names } = await annunciations(db, window);
    const rules = await countRules(db);
    const operators = query.operators ?? (await operatorsKept(app.pool));
    const health = alarmHealth(alarms, window, operators);
    return { health, checks: checkHealth(health, rules), rules: names };
  },

  'PUT /api/alarm-health/operators': async ({ app, body }) => {
    await withTransaction(app.pool, (db) => writeSetting(db, OPERATORS, body.operators));
  },
});
