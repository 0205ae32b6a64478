import * as yup from 'yup';
import { alarmHealth, checkHealth, DAY_MS, HEALTH_DAYS } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { readSetting, writeSetting } from '../db/settings';
import { endpoint } from '../http/endpoint';
import { alarmsSince, annunciations } from './annunciationSql';
import { listRules } from './rulesSql';

const MOST_OPERATORS = 100;
/** A rate told from less than a day would be a guess. */
const SHORTEST_MS = DAY_MS;

/** Name of the setting that holds how many people answer at the same time. */
const OPERATORS = 'alarmOperators';
const operatorCount = () => yup.number().integer().min(1).max(MOST_OPERATORS);

async function operatorsKept(db: Queryable): Promise<number> {
  return (await readSetting<number>(db, OPERATORS)) ?? 1;
}

export const alarmHealthEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/alarm-health',
    access: 'viewer',
    summary:
      'How much the alarms of the last days, at most since the first rule, asked of the people who answer them, against published guidelines. Alarms of rules that were set aside do not count: nobody was called.',
    answer:
      '{ health: AlarmHealth, checks: [{ key, value, good, most, level }], rules: [{ id, name, inForce }] }; rates per operator, times in ms; without operators as many as are kept',
    query: yup
      .object({
        days: yup
          .number()
          .oneOf([...HEALTH_DAYS])
          .default(7),
        operators: operatorCount().optional(),
      })
      .noUnknown(),
    handle: async ({ app, query }) => {
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
  }),
  endpoint({
    method: 'put',
    path: '/api/alarm-health/operators',
    access: 'analyst',
    summary: 'Keeps how many people answer alarms at the same time; rates are told per person.',
    body: yup.object({ operators: operatorCount().required() }).noUnknown(),
    answer: 'Nothing (204).',
    handle: async ({ app, body }) => {
      await writeSetting(app.pool, OPERATORS, body.operators);
    },
  }),
];
