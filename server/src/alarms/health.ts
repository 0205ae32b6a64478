import * as yup from 'yup';
import { alarmHealth, checkHealth, DAY_MS, HEALTH_DAYS } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { alarmsSince, annunciations } from './annunciationSql';
import { listRules } from './rulesSql';

const MOST_OPERATORS = 100;
/** A rate told from less than a day would be a guess. */
const SHORTEST_MS = DAY_MS;

export const alarmHealthEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/alarm-health',
    access: 'viewer',
    summary:
      'How much the alarms of the last days, at most since the first rule, asked of the people who answer them, against published guidelines. Alarms of rules that were set aside do not count: nobody was called.',
    answer:
      '{ health: AlarmHealth, checks: [{ key, value, good, most, level }], rules: [{ id, name, inForce }] }; rates per operator, times in ms',
    query: yup
      .object({
        days: yup
          .number()
          .oneOf([...HEALTH_DAYS])
          .default(7),
        operators: yup.number().integer().min(1).max(MOST_OPERATORS).default(1),
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
      const health = alarmHealth(alarms, window, query.operators);
      return { health, checks: checkHealth(health, rules.length), rules: names };
    },
  }),
];
