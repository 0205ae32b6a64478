import * as yup from 'yup';
import { alarmHealth, checkHealth, DAY_MS, HEALTH_DAYS } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { annunciations } from './annunciationSql';
import { listRules } from './sql';

const MOST_OPERATORS = 100;

export const alarmHealthEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/alarm-health',
    access: 'viewer',
    summary:
      'How much the alarms of the last days asked of the people who answer them, against published guidelines. Alarms of rules that were set aside do not count: nobody was called.',
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
      const window = { start: end - query.days * DAY_MS, end };
      const { alarms, names } = await annunciations(app.pool, window);
      const rules = await listRules(app.pool);
      const health = alarmHealth(alarms, window, query.operators);
      return { health, checks: checkHealth(health, rules.length), rules: names };
    },
  }),
];
