import { alarmsApi, PAST_ALARMS } from '@vivid-beacon/core/src/api/alarms';
import { allows, BeaconError, needsAcknowledgement, type Alarm } from '@vivid-beacon/core';
import type { AppContext } from '../http/appContext';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { otherLimitsReading, rehearsalReading } from './readings';
import { answerReading } from '../readings/answerReading';
import { acknowledgeAlarm } from './acknowledge';
import { putRuleBack, resetAlarm, setRuleAside } from './setAside';
import { retireRule } from './retire';
import { learnerOf } from './learnerOf';
import { putInForce } from './rules';
import { listRules } from './rulesSql';
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

const EARLIER_ALARMS = 10;

async function needAlarm(app: AppContext, id: string): Promise<Alarm> {
  const alarm = await findAlarm(app.pool, id);
  if (!alarm) throw new BeaconError('NOT_FOUND', 'This alarm does not exist.');
  return alarm;
}

export const alarmEndpoints = endpoints(alarmsApi, {
  'GET /api/alarms': async ({ app }) => ({
    standing: await listStandingAlarms(app.pool),
    past: await listPastAlarms(app.pool, PAST_ALARMS),
  }),

  'GET /api/alarms/waiting': async ({ app }) => {
    const standing = await countStanding(app.pool);
    const waiting = standing.filter(({ state }) => needsAcknowledgement(state));
    return { count: waiting.reduce((sum, { n }) => sum + n, 0) };
  },

  'GET /api/alarms/on-time': ({ app, query }) =>
    raisedOnTime(app.pool, [...new Set(query.metricIds.split(','))], { start: query.from, end: query.to }),

  'GET /api/alarms/:id': async ({ app, params }) => {
    const alarm = await needAlarm(app, params.id);
    return {
      alarm,
      events: await listEvents(app.pool, alarm.id),
      earlier: await earlierAlarms(app.pool, alarm, EARLIER_ALARMS),
    };
  },

  'POST /api/alarms/:id/acknowledgement': async ({ app, params, body, person }) => {
    await acknowledgeAlarm(app.pool, params.id, person.id, body.remark, app.now());
    return needAlarm(app, params.id);
  },

  'POST /api/alarms/:id/reset': async ({ app, params, person }) => {
    await resetAlarm(app.pool, params.id, person.id, app.now());
    return needAlarm(app, params.id);
  },

  'PUT /api/alarm-rules/:id/aside': async ({ app, params, body, person }) => {
    const { kind } = body;
    if (kind === 'outOfService' && !allows(person.role, 'analyst')) {
      throw new BeaconError('NOT_ALLOWED', 'Only analysts take a rule out of service. Shelve it for a time.');
    }
    const at = app.now();
    const until = kind === 'shelved' ? at + body.forMs! : null;
    const { reason, metricId } = body;
    await setRuleAside(app.pool, params.id, metricId, { kind, until, reason }, person.id, at);
  },

  'DELETE /api/alarm-rules/:id/aside': ({ app, params, query, person }) =>
    putRuleBack(app.pool, params.id, query.metricId, person, app.now()),

  'POST /api/alarms/:id/remarks': async ({ app, params, body, person }) => {
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

  'GET /api/alarm-rules': ({ app }) => listRules(app.pool),

  'POST /api/alarm-rules': async ({ app, db, body: { replaces, ...draft }, person }) => {
    const learner = learnerOf(app);
    const id = await putInForce(app.pool, draft, person.id, app.now(), {
      replaces,
      learner,
      asker: db.asker,
    });
    return { id };
  },

  'POST /api/alarm-rules/rehearsal': (call) => answerReading(call, rehearsalReading, call.body),

  'POST /api/alarm-rules/rehearsal/limits': (call) => answerReading(call, otherLimitsReading, call.body),

  'DELETE /api/alarm-rules/:id': async ({ app, params, person }) => {
    await changeAndNotify(app.pool, 'alarms', (db) => retireRule(db, params.id, person.id, app.now()));
  },
});
