import * as yup from 'yup';
import { ALARM_TEST_KINDS, CHART_POINTS, CONSUMPTION_PERIODS, type AlarmTestKind } from '../alarms/alarmTest';
import { RUN_RULES } from '../alarms/nelson';
import { ALARM_PRIORITIES } from '../domain/wire';
import { DAY_MS, MINUTE_MS } from '../time/lengths';
import { finite, idText, wholeNumber } from './parts';
import { attributeConditionsSchema, hoursSchema } from './query';

const LONGEST_DELAY_MS = 7 * DAY_MS;
const MOST_PEOPLE = 50;

/** A field that only some kinds of test have. */
const only = <S extends yup.Schema>(kinds: readonly AlarmTestKind[], schema: S) =>
  yup.mixed().when('kind', {
    is: (kind: AlarmTestKind) => kinds.includes(kind),
    then: () => schema,
    otherwise: () => yup.mixed().strip(),
  });

const length = (shortest: number, longest: number, words: string) =>
  yup.number().integer().min(shortest, words).max(longest, words).required(words);

export const alarmTestSchema = yup
  .object({
    kind: yup
      .string()
      .oneOf([...ALARM_TEST_KINDS])
      .required(),
    side: yup
      .string()
      .when('kind', { is: 'limit', then: (s) => s.oneOf(['above', 'below']).required() })
      .when('kind', { is: 'change', then: (s) => s.oneOf(['rise', 'fall', 'either']).required() })
      .when('kind', { is: 'baseline', then: (s) => s.oneOf(['above', 'below', 'either']).required() })
      .when('kind', {
        is: (kind: string) => !['limit', 'change', 'baseline'].includes(kind),
        then: (s) => s.strip(),
      }),
    limit: only(['limit', 'change', 'consumption', 'baseline'], finite().required('Give a limit')),
    deadband: only(
      ['limit', 'outside', 'change', 'baseline'],
      finite().min(0, 'The deadband must be at least 0').required(),
    ),
    low: only(['outside'], finite().required('Give the lower end of the band')),
    high: only(['outside'], finite().required('Give the upper end of the band')),
    inPercent: only(['change'], yup.boolean().required()),
    overMs: only(['change'], length(MINUTE_MS, DAY_MS, 'A change is told over 1 minute to 1 day')),
    forMs: only(['silence'], length(MINUTE_MS, 31 * DAY_MS, 'Silence is told after 1 minute to 31 days')),
    per: only(
      ['consumption'],
      yup
        .string()
        .oneOf([...CONSUMPTION_PERIODS])
        .required(),
    ),
    pace: only(['consumption'], yup.boolean().required()),
    code: only(['state'], wholeNumber().required('Give the state')),
    is: only(['state'], yup.boolean().required()),
    rules: only(
      ['runRules'],
      yup
        .array(
          yup
            .number()
            .oneOf(RUN_RULES.map(({ rule }) => rule))
            .required(),
        )
        .min(1, 'Choose at least one run rule')
        .required(),
    ),
    point: only(
      ['runRules'],
      yup
        .string()
        .oneOf([...CHART_POINTS])
        .required(),
    ),
  })
  .noUnknown()
  .test('ends', 'The band must end above its beginning', (test) => {
    const { kind, low, high } = test as { kind: string; low?: number; high?: number };
    return kind !== 'outside' || low! < high!;
  })
  .test('positive', 'The limit must be more than 0', (test) => {
    const { kind, limit } = test as { kind: string; limit?: number };
    return !['change', 'consumption', 'baseline'].includes(kind) || limit! > 0;
  });

const people = () => yup.array(idText().required()).max(MOST_PEOPLE).default([]);

export const alarmRuleSchema = yup
  .object({
    name: yup.string().trim().min(1, 'Give the rule a name').max(120).required('Give the rule a name'),
    metricId: idText().required(),
    under: idText().nullable().default(null),
    attributes: attributeConditionsSchema(),
    test: alarmTestSchema.required(),
    onDelayMs: length(0, LONGEST_DELAY_MS, 'A delay is 7 days at most'),
    offDelayMs: length(0, LONGEST_DELAY_MS, 'A delay is 7 days at most'),
    hours: hoursSchema.nullable().default(null),
    level: yup.string().oneOf(['caution', 'breach']).required(),
    priority: yup
      .string()
      .oneOf([...ALARM_PRIORITIES])
      .default('medium'),
    suppress: yup
      .object({
        metricId: idText().required('Choose the state'),
        code: wholeNumber().required(),
        is: yup.boolean().required(),
      })
      .noUnknown()
      .nullable()
      .default(null),
    message: yup.string().trim().max(300).default(''),
    toDo: yup.string().trim().max(2000).default(''),
    told: people(),
    escalation: yup
      .object({
        afterMs: length(MINUTE_MS, DAY_MS, 'An alarm is escalated after 1 minute to 1 day'),
        to: people().min(1, 'Choose who is told when nobody acknowledges'),
      })
      .noUnknown()
      .nullable()
      .default(null),
    latching: yup.boolean().default(false),
    /** The rule whose place this one takes. */
    replaces: idText().nullable().default(null),
  })
  .noUnknown();
