import * as yup from 'yup';
import { alarmRuleSchema, BeaconError, remarkSchema, type Alarm } from '@vivid-beacon/core';
import type { AppContext } from '../http/appContext';
import { endpoint } from '../http/endpoint';
import { notify } from '../live/notify';
import { acknowledgeAlarm } from './acknowledge';
import { putInForce, rehearseRule, type RuleDraft } from './rules';
import {
  addEvent,
  earlierAlarms,
  findAlarm,
  listEvents,
  listPastAlarms,
  listRules,
  listStandingAlarms,
  retireRule,
} from './sql';

const PAST_ALARMS = 50;
const EARLIER_ALARMS = 10;

async function needAlarm(app: AppContext, id: string): Promise<Alarm> {
  const alarm = await findAlarm(app.pool, id);
  if (!alarm) throw new BeaconError('NOT_FOUND', 'This alarm does not exist.');
  return alarm;
}

export const alarmEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/alarms',
    access: 'viewer',
    summary: 'Lists the alarms that stand and the newest that are over.',
    answer: '{ standing: [Alarm], past: [Alarm] }; at most 50 past ones',
    handle: async ({ app }) => ({
      standing: await listStandingAlarms(app.pool),
      past: await listPastAlarms(app.pool, PAST_ALARMS),
    }),
  }),
  endpoint({
    method: 'get',
    path: '/api/alarms/:id',
    access: 'viewer',
    summary: 'One alarm with its whole history.',
    answer: '{ alarm, events: [{ id, at, kind, personName, value, remark }], earlier: [Alarm] }',
    handle: async ({ app, params }) => {
      const alarm = await needAlarm(app, params.id);
      return {
        alarm,
        events: await listEvents(app.pool, alarm.id),
        earlier: await earlierAlarms(app.pool, alarm, EARLIER_ALARMS),
      };
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/alarms/:id/acknowledgement',
    access: 'operator',
    summary: 'Acknowledges an alarm, with a remark if there is one.',
    answer: 'The alarm. 409 WRONG_STATE when somebody has done so already.',
    body: remarkSchema,
    handle: async ({ app, params, body, person }) => {
      await acknowledgeAlarm(app.pool, params.id, person.id, body.remark, app.now());
      return needAlarm(app, params.id);
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/alarms/:id/remarks',
    access: 'operator',
    summary: 'Adds a remark to the history of an alarm.',
    answer: 'Nothing (204).',
    body: yup
      .object({ remark: yup.string().trim().min(1, 'Write a remark').max(2000).required('Write a remark') })
      .noUnknown(),
    handle: async ({ app, params, body, person }) => {
      const { id } = await needAlarm(app, params.id);
      await addEvent(app.pool, {
        alarmId: id,
        at: app.now(),
        kind: 'remark',
        personId: person.id,
        remark: body.remark,
      });
      await notify(app.pool, 'alarms', [id]);
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/alarm-rules',
    access: 'viewer',
    summary: 'Lists the alarm rules in force.',
    answer: "[AlarmRule]: limit and deadband in the metric's unit, delays in ms",
    handle: ({ app }) => listRules(app.pool),
  }),
  endpoint({
    method: 'post',
    path: '/api/alarm-rules',
    access: 'analyst',
    summary: 'Puts an alarm rule in force from now on.',
    answer: '{ id }',
    body: alarmRuleSchema,
    handle: async ({ app, body, person }) => {
      const id = await putInForce(app.pool, body as RuleDraft, person.id, app.now());
      await notify(app.pool, 'alarms', []);
      return { id };
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/alarm-rules/rehearsal',
    access: 'analyst',
    summary: 'Runs a draft of an alarm rule on past samples, with the same code as live evaluation.',
    answer:
      '{ window, alarms: [{ start, end }], longestMs, share (0 to 1), curve: [{ limit, fires }], samples, range }',
    body: alarmRuleSchema.shape({ days: yup.number().integer().min(1).max(400).required() }),
    handle: ({ app, body: { days, ...draft } }) =>
      rehearseRule(app.pool, draft as RuleDraft, days, app.now()),
  }),
  endpoint({
    method: 'delete',
    path: '/api/alarm-rules/:id',
    access: 'analyst',
    summary: 'Takes an alarm rule out of force. Its alarms and their history stay.',
    answer: 'Nothing (204).',
    handle: async ({ app, params }) => {
      if (!(await retireRule(app.pool, params.id))) {
        throw new BeaconError('NOT_FOUND', 'This alarm rule does not exist or is out of force already.');
      }
      await notify(app.pool, 'alarms', []);
    },
  }),
];
