import * as yup from 'yup';
import { alarmTestSchema } from '../alarms/alarmTest';
import { alarmHealthSchema, HEALTH_DAYS, healthCheckSchema } from '../alarms/health';
import { ALARM_STATES, SET_ASIDE } from '../alarms/lifecycle';
import { ALARM_PRIORITIES } from '../alarms/priorities';
import { otherLimitsSchema, rehearsalSchema } from '../alarms/rehearse';
import { overSchema } from '../alarms/rulePeriods';
import { alarmRuleSchema, RULE_LEVELS } from '../schemas/alarmRule';
import { asideSchema, remarkSchema } from '../schemas/forms';
import { alarmListSchema, ruleListSchema } from '../schemas/lists';
import { fromAndTo, idList, idText } from '../schemas/parts';
import {
  amount,
  amountOrNull,
  amounts,
  amountsOrNulls,
  list,
  oneOf,
  shape,
  text,
  textOrNull,
  truth,
  type TypeOf,
  named,
} from '../schemas/shape';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';

const MAX_METRICS = 50;
const MAX_OPERATORS = 100;

export const ruleAside = shape({
  kind: oneOf(SET_ASIDE),
  at: amount(),
  /** End of shelving; null = out of service until reinstated. */
  until: amountOrNull(),
  by: text(),
  reason: text(),
});
/** How, why and until when an alarm rule is set aside. */
export type RuleAside = TypeOf<typeof ruleAside>;

const watchedMetric = shape({
  metricId: text(),
  assetName: text(),
  /** How it is set aside (alarms recorded, nobody notified); null = it is not. */
  aside: ruleAside.nullable(),
  /** Whether the state of the plant suppresses it now. */
  suppressed: truth(),
});
/** One metric that a rule watches. */
export type WatchedMetric = TypeOf<typeof watchedMetric>;

const watchedMetrics = shape({
  /** Numbers of metrics: watched, suppressed by the state of the plant, set aside. */
  metrics: amount(),
  suppressed: amount(),
  aside: amount(),
  /**
   * How it is set aside: out of service on any of them, otherwise the shelving that ends first; null = not at
   * all.
   */
  how: ruleAside.nullable(),
  /** Why periods cannot be judged; null = they can. */
  problem: textOrNull(),
});
/** Counts of the metrics a rule watches. */
export type WatchedMetrics = TypeOf<typeof watchedMetrics>;

/** The choices of a rule; `replaces` is the id of the rule it replaces. */
export type RuleInput = TypeOf<typeof alarmRuleSchema>;

const alarmRule = named(
  'AlarmRule',
  alarmRuleSchema
    .omit(['replaces'])
    .shape({
      id: text(),
      inForce: truth(),
      inForceFrom: amount(),
      watched: watchedMetrics,
      /** Of what is judged: unit and decimals of its limits. */
      unit: text(),
      decimals: amount(),
    })
    .noUnknown()
    .required(),
);
export type AlarmRule = TypeOf<typeof alarmRule>;
/** A state of the plant in which the alarms of a rule are suppressed by design. */
export type SuppressWhile = NonNullable<AlarmRule['suppress']>;

const wholeRule = shape({ rule: alarmRule, watches: list(watchedMetric) });
/** An alarm rule with every metric it watches. */
export type WholeRule = TypeOf<typeof wholeRule>;

export const alarm = named(
  'Alarm',
  shape({
    id: text(),
    ruleId: text(),
    ruleName: text(),
    state: oneOf(ALARM_STATES),
    /** End of shelving and reason for being set aside; null = not set aside. */
    shelvedUntil: amountOrNull(),
    asideReason: textOrNull(),
    level: oneOf(RULE_LEVELS),
    priority: oneOf(ALARM_PRIORITIES),
    test: alarmTestSchema,
    /** The periods that were judged; null = single samples. */
    over: overSchema.nullable(),
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
    /** Time of the escalation since the last notification; null = none. */
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
    /** Of the Caution of a rule of two stages. */
    caution: rehearsalSchema.nullable(),
    samples: amount(),
    metrics: amount(),
    /** It learnt from the samples it was run on, so the result looks better than it will be. */
    learntOnItself: truth(),
    /** Metrics with too little history to learn from; the rule cannot trip there. */
    unlearnt: amount(),
  })
  .noUnknown();
/** A rehearsal with what it ran over. */
export type RehearsalAnswer = TypeOf<typeof rehearsalAnswer>;

const courseOrder = rehearsalOrder
  .shape({
    /** Which of the watched metrics. */
    courseOf: idText().required(),
    columns: yup.number().integer().min(1).max(8_000).required(),
  })
  .noUnknown();
export type CourseOrder = TypeOf<typeof courseOrder>;

const courseAnswer = shape({ t: amounts(), v: amountsOrNulls(), unit: text(), decimals: amount() });
/** What a draft compares with its limit, over the rehearsed days, on one metric. */
export type CourseAnswer = TypeOf<typeof courseAnswer>;

const operatorCount = () => yup.number().integer().min(1).max(MAX_OPERATORS);

export const alarmsApi = contracts({
  'GET /api/alarms': {
    access: 'viewer',
    summary:
      'Active alarms, the most serious and newest first and those set aside last; or, with list=over, past alarms, newest first.',
    query: alarmListSchema,
    answer: json(
      shape({ items: list(alarm), total: amount(), setAside: amount() }),
      'setAside: of the total',
    ),
  },
  'GET /api/alarms/waiting': {
    access: 'viewer',
    summary: 'Number of alarms to acknowledge.',
    answer: json(shape({ count: amount() })),
  },
  'GET /api/alarms/on-time': {
    access: 'viewer',
    summary: `When alarms of up to ${MAX_METRICS} metrics (ids with commas) were raised in a stretch of time (ms).`,
    query: yup.object({ metricIds: idList(MAX_METRICS).required(), ...fromAndTo() }).noUnknown(),
    answer: json(list(raisedAlarm), 'in order; the newest 1,000 at most'),
  },
  'GET /api/alarms/:id': {
    access: 'viewer',
    summary: 'One alarm with its full history.',
    answer: json(shape({ alarm, events: list(alarmEvent), earlier: list(alarm) })),
  },
  'POST /api/alarms/:id/acknowledgement': {
    access: 'operator',
    summary: 'Acknowledges an alarm, optionally with a remark.',
    body: remarkSchema,
    answer: json(alarm),
    errors: { 409: 'WRONG_STATE when it is acknowledged already' },
  },
  'POST /api/alarms/:id/reset': {
    access: 'operator',
    summary: 'Resets a latched alarm that is acknowledged.',
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
    summary: 'Alarm rules in force by name, each with the number of metrics it watches.',
    query: ruleListSchema,
    answer: json(pageOf(alarmRule), "limits and deadbands in the metric's unit, durations in ms"),
  },
  'GET /api/alarm-rules/:id': {
    access: 'viewer',
    summary: 'One alarm rule, in force or not, with every metric it watches.',
    answer: json(wholeRule),
  },
  'POST /api/alarm-rules': {
    access: 'analyst',
    summary:
      'Puts an alarm rule in force from now on; with `replaces`, another rule is withdrawn in the same step.',
    body: alarmRuleSchema,
    answer: json(shape({ id: text() })),
    errors: {
      404: 'NOT_FOUND for a missing metric or rule',
      409: 'WRONG_STATE when the rule to replace is withdrawn already',
    },
  },
  'DELETE /api/alarm-rules/:id': {
    access: 'analyst',
    summary:
      'Withdraws an alarm rule. Its alarms and their history stay; an active alarm ends once it is acknowledged.',
    answer: nothing,
    errors: { 409: 'WRONG_STATE when it is withdrawn already' },
  },
  'PUT /api/alarm-rules/:id/aside': {
    access: 'operator',
    summary:
      'Shelves a rule for a time, or takes it out of service, on all its metrics or one: its alarms are recorded and nobody is notified. Out of service is for analysts.',
    body: asideSchema,
    answer: nothing,
    errors: {
      403: 'NOT_ALLOWED to take it out of service, unless an analyst asks',
      409: 'WRONG_STATE when it is already set aside in the other way',
    },
  },
  'DELETE /api/alarm-rules/:id/aside': {
    access: 'operator',
    summary: 'Reinstates a rule that was set aside. An alarm whose condition is still met is raised again.',
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
    answer: json(rehearsalAnswer, 'share 0 to 1; learntOnItself: the result looks better than it will be'),
    errors: { 404: 'NOT_FOUND for a missing metric' },
  },
  'POST /api/alarm-rules/rehearsal/course': {
    access: 'analyst',
    summary:
      'What a draft of an alarm rule compares with its limit, over past days, on one of the metrics it would watch.',
    body: courseOrder,
    answer: json(courseAnswer, 'thinned to four points a column; null breaks the line; unit of the limit'),
    errors: { 404: 'NOT_FOUND for a missing metric', 422: 'BAD_INPUT for a metric that it would not watch' },
  },
  'POST /api/alarm-rules/rehearsal/limits': {
    access: 'analyst',
    summary:
      'How often a draft of an alarm rule would have fired with other limits, and which limit fires at most once a week.',
    body: rehearsalOrder,
    answer: json(
      otherLimitsSchema,
      'limits in the unit of the test; empty and null if the test has no single limit',
    ),
    errors: { 404: 'NOT_FOUND for a missing metric' },
  },
});

export const alarmHealthApi = contracts({
  'GET /api/alarm-health': {
    access: 'viewer',
    summary:
      'The load that the alarms of the last days (at most since the first rule) put on the people who answer them, against published guidelines. Alarms of rules that were set aside do not count: nobody was notified.',
    query: yup
      .object({ days: yup.number().oneOf(HEALTH_DAYS).default(7), operators: operatorCount().optional() })
      .noUnknown(),
    answer: json(
      shape({ health: alarmHealthSchema, checks: list(healthCheckSchema), rules: list(raisingRule) }),
      'rates per operator, times in ms; operators defaults to the stored number',
    ),
  },
  'PUT /api/alarm-health/operators': {
    access: 'analyst',
    everywhere: true,
    summary: 'Stores how many people answer alarms at the same time; rates are per person.',
    body: yup.object({ operators: operatorCount().required() }).noUnknown(),
    answer: nothing,
  },
});
