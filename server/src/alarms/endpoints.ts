import { alarmsApi } from '@vivid-beacon/core/src/api/alarms';
import {
  allows,
  BeaconError,
  needsAcknowledgement,
  roleAt,
  searchWords,
  type Alarm,
  type AlarmRule,
  type SignedInPerson,
} from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { needMetrics } from '../metrics/metrics';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { courseReading, otherLimitsReading, rehearsalReading } from './readings';
import { answerReading } from '../readings/answerReading';
import { acknowledgeAlarm } from './acknowledge';
import { putRuleBack, resetAlarm, setRuleAside } from './setAside';
import { retireRule } from './retire';
import { rulePastOf } from './rulePastOf';
import { putInForce } from './rules';
import {
  countSetAside,
  countStanding,
  earlierAlarms,
  findAlarm,
  pageOfAlarms,
  raisedOnTime,
} from './listSql';
import { findRule, pageOfRules, watchesElsewhere, watchesOfRule } from './rulesSql';
import { addEvent, listEvents } from './sql';

const EARLIER_ALARMS = 10;

async function needAlarm(db: Reader, id: string): Promise<Alarm> {
  const alarm = await findAlarm(db, id);
  if (!alarm) throw new BeaconError('NOT_FOUND', 'This alarm does not exist.');
  return alarm;
}

/** A rule, in force or not. */
async function needRule(db: Reader, id: string): Promise<AlarmRule> {
  const rule = await findRule(db, id);
  if (!rule) throw new BeaconError('NOT_FOUND', 'This alarm rule does not exist.');
  return rule;
}

/** A rule whose plants the caller reaches, all of them, because what follows changes it at each. */
async function needWholeRule(db: Reader, id: string): Promise<AlarmRule> {
  const rule = await needRule(db, id);
  if (await watchesElsewhere(db, rule.id)) {
    throw new BeaconError(
      'NOT_ALLOWED',
      `${rule.name} also watches plants at which you have not the role for this.`,
    );
  }
  return rule;
}

/** A rule on one of its metrics, or on all (null), that the caller reaches. */
async function needRuleOn(db: Reader, id: string, metricId: string | null): Promise<AlarmRule> {
  if (metricId === null) return needWholeRule(db, id);
  await needMetrics(db, [metricId]);
  return needRule(db, id);
}

async function isAnalystAt(db: Reader, { rights }: SignedInPerson, metricId: string): Promise<boolean> {
  const role = roleAt(rights, (await needMetrics(db, [metricId])).get(metricId)!.plantId);
  return role !== null && allows(role, 'analyst');
}

export const alarmEndpoints = endpoints(alarmsApi, {
  'GET /api/alarms': async ({ db, query: { search, list, ruleId, plantId, ...page } }) => {
    const filter = { list, ruleId, plantId, words: searchWords(search) };
    const [found, setAside] = await Promise.all([
      pageOfAlarms(db, filter, page),
      list === 'standing' ? countSetAside(db, filter) : 0,
    ]);
    return { ...found, setAside };
  },

  'GET /api/alarms/waiting': async ({ db }) => {
    const standing = await countStanding(db);
    const waiting = standing.filter(({ state }) => needsAcknowledgement(state));
    return { count: waiting.reduce((sum, { n }) => sum + n, 0) };
  },

  'GET /api/alarms/on-time': ({ db, query }) =>
    raisedOnTime(db, [...new Set(query.metricIds.split(','))], { start: query.from, end: query.to }),

  'GET /api/alarms/:id': async ({ app, db, params }) => {
    const alarm = await needAlarm(db, params.id);
    return {
      alarm,
      events: await listEvents(app.pool, alarm.id),
      earlier: await earlierAlarms(db, alarm, EARLIER_ALARMS),
    };
  },

  'POST /api/alarms/:id/acknowledgement': async ({ app, db, params, body, person }) => {
    await needAlarm(db, params.id);
    await acknowledgeAlarm(app.pool, params.id, person.id, body.remark, app.now());
    return needAlarm(db, params.id);
  },

  'POST /api/alarms/:id/reset': async ({ app, db, params, person }) => {
    await needAlarm(db, params.id);
    await resetAlarm(app.pool, params.id, person.id, app.now());
    return needAlarm(db, params.id);
  },

  'PUT /api/alarm-rules/:id/aside': async ({ app, db, params, body, person }) => {
    const { id: ruleId, metricId: first } = await needRuleOn(db, params.id, body.metricId);
    const { kind } = body;
    if (kind === 'outOfService' && !(await isAnalystAt(db, person, body.metricId ?? first))) {
      throw new BeaconError(
        'NOT_ALLOWED',
        'Only an analyst can take a rule out of service. Shelve it for a time instead.',
      );
    }
    const at = app.now();
    const until = kind === 'shelved' ? at + body.forMs! : null;
    const { reason, metricId } = body;
    await setRuleAside(app.pool, ruleId, metricId, { kind, until, reason }, person.id, at);
  },

  'DELETE /api/alarm-rules/:id/aside': async ({ app, db, params, query, person }) => {
    const { id, metricId: first } = await needRuleOn(db, params.id, query.metricId);
    const analyst = await isAnalystAt(db, person, query.metricId ?? first);
    return putRuleBack(app.pool, id, query.metricId, { id: person.id, analyst }, app.now());
  },

  'POST /api/alarms/:id/remarks': async ({ app, db, params, body, person }) => {
    const { id } = await needAlarm(db, params.id);
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
      (own) => addEvent(own, event),
      () => [id],
    );
  },

  'GET /api/alarm-rules': ({ db, query: { search, ...page } }) => pageOfRules(db, searchWords(search), page),

  'GET /api/alarm-rules/:id': async ({ db, params }) => {
    const rule = await needRule(db, params.id);
    return { rule, watches: await watchesOfRule(db, rule.id) };
  },

  'POST /api/alarm-rules': async ({ app, db, body: { replaces, ...draft }, person }) => {
    if (replaces !== null) await needWholeRule(db, replaces);
    const id = await putInForce(app.pool, draft, person.id, app.now(), {
      replaces,
      past: rulePastOf(app),
      asker: db.asker,
    });
    return { id };
  },

  'POST /api/alarm-rules/rehearsal': (call) => answerReading(call, rehearsalReading, call.body),

  'POST /api/alarm-rules/rehearsal/course': (call) => answerReading(call, courseReading, call.body),

  'POST /api/alarm-rules/rehearsal/limits': (call) => answerReading(call, otherLimitsReading, call.body),

  'DELETE /api/alarm-rules/:id': async ({ app, db, params, person }) => {
    const { id } = await needWholeRule(db, params.id);
    await changeAndNotify(app.pool, 'alarms', (own) => retireRule(own, id, person.id, app.now()));
  },
});
