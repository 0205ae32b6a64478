import * as yup from 'yup';
import { alarmTestSchema } from '../alarms/alarmTest';
import { alarmHealthSchema, HEALTH_DAYS, healthCheckSchema } from '../alarms/health';
import { ALARM_STATES, SET_ASIDE } from '../alarms/lifecycle';
import { ALARM_PRIORITIES } from '../alarms/priorities';
import { otherLimitsSchema, rehearsalSchema } from '../alarms/rehearse';
import { alarmRuleSchema, RULE_LEVELS } from '../schemas/alarmRule';
import { asideSchema, remarkSchema } from '../schemas/forms';
import { fromAndTo, idList, idText } from '../schemas/parts';
import {
  amount,
  amountOrNull,
  list,
  oneOf,
  shape,
  text,
  textOrNull,
  truth,
  type TypeOf,
  named,
} from '../schemas/shape';
import { contracts, json, nothing } from './contract';

const MOST_METRICS = 50;
const MOST_OPERATORS = 100;
/** So many alarms that are over come with those that stand. */
export const PAST_ALARMS = 50;

export const ruleAside = shape({
  kind: oneOf(SET_ASIDE),
  at: amount(),
  /** End of a shelf; null = out of service, until somebody puts it back. */
  until: amountOrNull(),
  by: text(),
  reason: text(),
});
/** How, why and until when an alarm rule is set aside. */
export type RuleAside = TypeOf<typeof ruleAside>;

/** One metric that a rule watches. */
const watchedMetric = shape({
  metricId: text(),
  assetName: text(),
  /** Set aside: its alarms are recorded, and nobody is called; null = not. */
  aside: ruleAside.nullable(),
  /** Does the state of the plant suppress it now? */
  suppressed: truth(),
});

/** What a person chooses of a rule; `replaces` names the rule whose place it takes. */
export type RuleForm = TypeOf<typeof alarmRuleSchema>;

const alarmRule = named(
  'AlarmRule',
  alarmRuleSchema
    .omit(['replaces'])
    .shape({
      id: text(),
      inForce: truth(),
      inForceFrom: amount(),
      watches: list(watchedMetric),
    })
    .noUnknown()
    .required(),
);
export type AlarmRule = TypeOf<typeof alarmRule>;
/** A state of the plant in which a rule is meant to be silent: its alarms are suppressed by design. */
export type SuppressWhile = NonNullable<AlarmRule['suppress']>;

export const alarm = named(
  'Alarm',
  shape({
    id: text(),
    ruleId: text(),
    ruleName: text(),
    state: oneOf(ALARM_STATES),
    /** End of the shelf it lies on, and why it is set aside; null = it is not. */
    shelvedUntil: amountOrNull(),
    asideReason: textOrNull(),
    level: oneOf(RULE_LEVELS),
    priority: oneOf(ALARM_PRIORITIES),
    test: alarmTestSchema,
    toDo: text(),
    metricId: text(),
    metricName: text(),
    unit: text(),
    decimals: amount(),
    assetId: text(),
    assetName: text(),
    plantId: text(),
    plantName: text(),
    zone: text(),
    raisedAt: amount(),
    /** Null when there was none: silence from the beginning. */
    raisedValue: amountOrNull(),
    returnedAt: amountOrNull(),
    latestValue: amountOrNull(),
    acknowledgedBy: textOrNull(),
    acknowledgedAt: amountOrNull(),
    /** When others were told because nobody acknowledged since it last called; null = they were not. */
    escalatedAt: amountOrNull(),
  }),
);
export type Alarm = TypeOf<typeof alarm>;

const alarmEvent = shape({
  id: text(),
  at: amount(),
  kind: oneOf([
    'raised',
    'returned',
    'acknowledged',
    'reset',
    'shelved',
    'outOfService',
    'suppressed',
    'putBack',
    'told',
    'remark',
    'flagged',
    'flagClosed',
    'ruleRetired',
    'recalculated',
  ] as const),
  personName: textOrNull(),
  value: amountOrNull(),
  remark: textOrNull(),
});
export type AlarmEvent = TypeOf<typeof alarmEvent>;

const raisedAlarm = shape({ id: text(), metricId: text(), raisedAt: amount() });
/** When an alarm was raised: a mark along the time of a trend. */
export type RaisedAlarm = TypeOf<typeof raisedAlarm>;

const raisingRule = shape({ id: text(), name: text(), inForce: truth() });
/** A rule that raised alarms, as it is now. */
export type RaisingRule = TypeOf<typeof raisingRule>;

const rehearsalOrder = alarmRuleSchema
  .shape({ days: yup.number().integer().min(1).max(400).required() })
  .noUnknown();
export type RehearsalOrder = TypeOf<typeof rehearsalOrder>;

const rehearsalAnswer = rehearsalSchema
  .shape({
    samples: amount(),
    metrics: amount(),
    /** It learnt what is usual from the very samples it was run on: it looks better than it will be. */
    learntOnItself: truth(),
    /** Metrics with too little past to learn from: there it would find nothing. */
    unlearnt: amount(),
  })
  .noUnknown();
/** A rehearsal with what it ran over. */
export type RehearsalAnswer = TypeOf<typeof rehearsalAnswer>;

const operatorCount = () => yup.number().integer().min(1).max(MOST_OPERATORS);

export const alarmsApi = contracts({
  'GET /api/alarms': {
    access: 'viewer',
    summary: 'Lists the alarms that stand and the newest that are over.',
    answer: json(shape({ standing: list(alarm), past: list(alarm) }), `at most ${PAST_ALARMS} past ones`),
  },
  'GET /api/alarms/waiting': {
    access: 'viewer',
    summary: 'How many alarms wait for somebody to acknowledge them.',
    answer: json(shape({ count: amount() })),
  },
  'GET /api/alarms/on-time': {
    access: 'viewer',
    summary: `When alarms of up to ${MOST_METRICS} metrics (ids with commas) were raised in a stretch of time, ms.`,
    query: yup.object({ metricIds: idList(MOST_METRICS).required(), ...fromAndTo() }).noUnknown(),
    answer: json(list(raisedAlarm), 'in order; of more than 1000 the newest'),
  },
  'GET /api/alarms/:id': {
    access: 'viewer',
    summary: 'One alarm with its whole history.',
    answer: json(shape({ alarm, events: list(alarmEvent), earlier: list(alarm) })),
  },
  'POST /api/alarms/:id/acknowledgement': {
    access: 'operator',
    summary: 'Acknowledges an alarm, with a remark if there is one.',
    body: remarkSchema,
    answer: json(alarm),
    errors: { 409: 'WRONG_STATE when somebody has done so already' },
  },
  'POST /api/alarms/:id/reset': {
    access: 'operator',
    summary: 'Resets an alarm that has latched, once it is acknowledged.',
    answer: json(alarm),
    errors: { 409: 'WRONG_STATE when it is not latched, or not acknowledged yet' },
  },
  'POST /api/alarms/:id/remarks': {
    access: 'operator',
    summary: 'Adds a remark to the history of an alarm.',
    body: yup
      .object({ remark: yup.string().trim().min(1, 'Write a remark').max(2000).required('Write a remark') })
      .noUnknown(),
    answer: nothing,
  },
  'GET /api/alarm-rules': {
    access: 'viewer',
    summary: 'Lists the alarm rules in force, with the metrics each watches.',
    answer: json(list(alarmRule), "limits and deadbands in the metric's unit, lengths of time in ms"),
  },
  'POST /api/alarm-rules': {
    access: 'analyst',
    summary:
      'Puts an alarm rule in force from now on; with `replaces` another one goes out of force with it.',
    body: alarmRuleSchema,
    answer: json(shape({ id: text() })),
    errors: {
      404: 'NOT_FOUND for a metric or rule that is not there',
      409: 'WRONG_STATE when the rule it replaces is out of force already',
    },
  },
  'DELETE /api/alarm-rules/:id': {
    access: 'analyst',
    summary:
      'Takes an alarm rule out of force. Its alarms and their history stay; one that stands ends, once it is acknowledged.',
    answer: nothing,
    errors: { 409: 'WRONG_STATE when it is out of force already' },
  },
  'PUT /api/alarm-rules/:id/aside': {
    access: 'operator',
    summary:
      'Shelves a rule for a time, or takes it out of service, on all its metrics or one: its alarms are recorded and nobody is called. Out of service is for analysts.',
    body: asideSchema,
    answer: nothing,
    errors: {
      403: 'NOT_ALLOWED to take it out of service, unless an analyst asks',
      409: 'WRONG_STATE when it is set aside in the other way already',
    },
  },
  'DELETE /api/alarm-rules/:id/aside': {
    access: 'operator',
    summary: 'Puts a rule back that was set aside. An alarm whose condition is still met is raised anew.',
    query: yup.object({ metricId: idText().nullable().default(null) }).noUnknown(),
    answer: nothing,
    errors: {
      403: 'NOT_ALLOWED for one out of service, unless an analyst asks',
      409: 'WRONG_STATE when it is not set aside',
    },
  },
  'POST /api/alarm-rules/rehearsal': {
    access: 'analyst',
    summary: 'Runs a draft of an alarm rule on past samples, with the same code as live evaluation.',
    body: rehearsalOrder,
    answer: json(rehearsalAnswer, 'share 0 to 1; learntOnItself: it looks better than it will be'),
    errors: { 404: 'NOT_FOUND for a metric that is not there' },
  },
  'POST /api/alarm-rules/rehearsal/limits': {
    access: 'analyst',
    summary:
      'How often a draft of an alarm rule would have fired with other limits, and with which about once a week.',
    body: rehearsalOrder,
    answer: json(
      otherLimitsSchema,
      'limits in the unit of the test; empty and null where no single limit decides',
    ),
    errors: { 404: 'NOT_FOUND for a metric that is not there' },
  },
});

export const alarmHealthApi = contracts({
  'GET /api/alarm-health': {
    access: 'viewer',
    summary:
      'How much the alarms of the last days, at most since the first rule, asked of the people who answer them, against published guidelines. Alarms of rules that were set aside do not count: nobody was called.',
    query: yup
      .object({ days: yup.number().oneOf(HEALTH_DAYS).default(7), operators: operatorCount().optional() })
      .noUnknown(),
    answer: json(
      shape({ health: alarmHealthSchema, checks: list(healthCheckSchema), rules: list(raisingRule) }),
      'rates per operator, times in ms; without operators as many as are kept',
    ),
  },
  'PUT /api/alarm-health/operators': {
    access: 'analyst',
    summary: 'Keeps how many people answer alarms at the same time; rates are told per person.',
    body: yup.object({ operators: operatorCount().required() }).noUnknown(),
    answer: nothing,
  },
});
