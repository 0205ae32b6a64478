import * as yup from 'yup';
import {
  allows,
  asideSchema,
  BeaconError,
  fromAndTo,
  idList,
  idText,
  needsAcknowledgement,
  remarkSchema,
  type Alarm,
  type SetAside,
} from '@vivid-beacon/core';
import { alarmRuleSchema } from '@vivid-beacon/core/src/engine';
import type { AppContext } from '../http/appContext';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { answerReading } from '../readings/answerReading';
import { acknowledgeAlarm } from './acknowledge';
import { putRuleBack, resetAlarm, setRuleAside } from './setAside';
import { retireRule } from './retire';
import { learnerOf } from './learnerOf';
import { putInForce } from './rules';
import { listRules, type RuleParts } from './rulesSql';
import {
  addEvent,
  countStanding,
  earlierAlarms,
  findAlarm,
  listEvents,
  listPastAlarms,
  listStandingAlarms,
  raisedOnTime,
} from './sql';

const PAST_ALARMS = 50;
const MOST_METRICS = 50;
const EARLIER_ALARMS = 10;

async function needAlarm(app: AppContext, id: string): Promise<Alarm> {
  const alarm = await findAlarm(app.pool, id);
  if (!alarm) throw new BeaconError('NOT_FOUND', 'This alarm does not exist.');
  return alarm;
}

const rehearsalSchema = alarmRuleSchema.shape({ days: yup.number().integer().min(1).max(400).required() });

function rehearsalOf(body: { days: number }): { draft: RuleParts; days: number } {
  return { draft: body as unknown as RuleParts, days: body.days };
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
    path: '/api/alarms/waiting',
    access: 'viewer',
    summary: 'How many alarms wait for somebody to acknowledge them.',
    answer: '{ count }',
    handle: async ({ app }) => {
      const standing = await countStanding(app.pool);
      const waiting = standing.filter(({ state }) => needsAcknowledgement(state));
      return { count: waiting.reduce((sum, { n }) => sum + n, 0) };
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/alarms/on-time',
    access: 'viewer',
    summary: `When alarms of up to ${MOST_METRICS} metrics (ids with commas) were raised in a stretch of time, ms.`,
    answer:
      '[{ id, metricId, raisedAt }] in order; of more than 1000 the newest. 422 when from is not before to.',
    query: yup
      .object({
        metricIds: idList(MOST_METRICS).required(),
        ...fromAndTo(),
      })
      .noUnknown(),
    handle: ({ app, query }) =>
      raisedOnTime(app.pool, [...new Set(query.metricIds.split(','))], { start: query.from, end: query.to }),
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
    path: '/api/alarms/:id/reset',
    access: 'operator',
    summary: 'Resets an alarm that has latched, once it is acknowledged.',
    answer: 'The alarm. 409 WRONG_STATE when it is not latched, or not acknowledged yet.',
    handle: async ({ app, params, person }) => {
      await resetAlarm(app.pool, params.id, person.id, app.now());
      return needAlarm(app, params.id);
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/alarm-rules/:id/aside',
    access: 'operator',
    summary:
      'Shelves a rule for a time, or takes it out of service, on all its metrics or one: its alarms are recorded and nobody is called. Out of service is for analysts.',
    answer: 'Nothing (204). 404 NOT_FOUND, 403 NOT_ALLOWED.',
    body: asideSchema,
    handle: async ({ app, params, body, person }) => {
      const kind = body.kind as SetAside;
      if (kind === 'outOfService' && !allows(person.role, 'analyst')) {
        throw new BeaconError(
          'NOT_ALLOWED',
          'Only analysts take a rule out of service. Shelve it for a time.',
        );
      }
      const at = app.now();
      const until = kind === 'shelved' ? at + body.forMs! : null;
      const { reason, metricId } = body;
      await setRuleAside(app.pool, params.id, metricId, { kind, until, reason }, person.id, at);
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/alarm-rules/:id/aside',
    access: 'operator',
    summary: 'Puts a rule back that was set aside. An alarm whose condition is still met is raised anew.',
    answer:
      'Nothing (204). 409 WRONG_STATE when it is not set aside; 403 NOT_ALLOWED for one out of service, unless an analyst asks.',
    query: yup.object({ metricId: idText().nullable().default(null) }).noUnknown(),
    handle: ({ app, params, query, person }) =>
      putRuleBack(app.pool, params.id, query.metricId, person, app.now()),
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
      const event = {
        alarmId: id,
        at: app.now(),
        kind: 'remark' as const,
        personId: person.id,
        remark: body.remark,
      };
      await changeAndNotify(
        app.pool,
        'alarms',
        (db) => addEvent(db, event),
        () => [id],
      );
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/alarm-rules',
    access: 'viewer',
    summary: 'Lists the alarm rules in force.',
    answer:
      "[AlarmRule] with the metrics each watches: limits and deadbands in the metric's unit, lengths of time in ms",
    handle: ({ app }) => listRules(app.pool),
  }),
  endpoint({
    method: 'post',
    path: '/api/alarm-rules',
    access: 'analyst',
    summary:
      'Puts an alarm rule in force from now on; with `replaces` another one goes out of force with it.',
    answer: '{ id }. 409 WRONG_STATE when the rule it replaces is out of force already.',
    body: alarmRuleSchema,
    handle: async ({ app, db, body: { replaces, ...draft }, person }) => {
      const learner = learnerOf(app);
      const rule = draft as unknown as RuleParts;
      const id = await putInForce(app.pool, rule, person.id, app.now(), {
        replaces,
        learner,
        asker: db.asker,
      });
      return { id };
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/alarm-rules/rehearsal',
    access: 'analyst',
    summary: 'Runs a draft of an alarm rule on past samples, with the same code as live evaluation.',
    answer:
      '{ window, alarms: [{ start, end }], longestMs, share (0 to 1), outsideHours, samples, metrics, learntOnItself, unlearnt }',
    body: rehearsalSchema,
    handle: (call) => answerReading(call, 'rehearsal', rehearsalOf(call.body)),
  }),
  endpoint({
    method: 'post',
    path: '/api/alarm-rules/rehearsal/limits',
    access: 'analyst',
    summary:
      'How often a draft of an alarm rule would have fired with other limits, and with which about once a week.',
    answer:
      '{ curve: [{ limit, fires }], onceAWeek: { limit, fires } or null }; limits in the unit of the test. Both empty where no single limit decides.',
    body: rehearsalSchema,
    handle: (call) => answerReading(call, 'otherLimits', rehearsalOf(call.body)),
  }),
  endpoint({
    method: 'delete',
    path: '/api/alarm-rules/:id',
    access: 'analyst',
    summary:
      'Takes an alarm rule out of force. Its alarms and their history stay; one that stands ends, once it is acknowledged.',
    answer: 'Nothing (204).',
    handle: async ({ app, params, person }) => {
      await changeAndNotify(app.pool, 'alarms', (db) => retireRule(db, params.id, person.id, app.now()));
    },
  }),
];
