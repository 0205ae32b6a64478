import * as yup from 'yup';
import { alarmTestSchema, type AlarmTest } from '../alarms/alarmTest';
import { overSchema } from '../alarms/rulePeriods';
import { isMilder } from '../alarms/stages';
import { ALARM_PRIORITIES } from '../alarms/priorities';
import { attributeConditionsSchema } from '../domain/query';
import { DAY_MS, MINUTE_MS } from '../time/lengths';
import { hoursSchema } from './hours';
import { idText, wholeNumber } from './parts';

const MAX_DELAY_MS = 7 * DAY_MS;
const MAX_PEOPLE = 50;

export const RULE_LEVELS = ['caution', 'breach'] as const;

const length = (shortest: number, longest: number, words: string) =>
  yup.number().integer().min(shortest, words).max(longest, words).required(words);

const people = () => yup.array(idText().required()).max(MAX_PEOPLE).default([]);

/** What each stage of a rule has of its own. */
const stageFields = () => ({
  test: alarmTestSchema,
  priority: yup
    .string()
    .oneOf([...ALARM_PRIORITIES])
    .default('medium'),
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
});

/** The Caution before a Breach: a milder test of the same kind, with a priority and recipients of its own. */
const cautionSchema = yup
  .object(stageFields())
  .noUnknown()
  .nullable()
  .default(null)
  .test(
    'milder',
    'The Caution must come before the Breach: the same test with a milder limit',
    (caution, { parent }: { readonly parent: { level?: string; test?: AlarmTest } }) =>
      !caution ||
      (parent.level === 'breach' && parent.test !== undefined && isMilder(caution.test, parent.test)),
  );

export const alarmRuleSchema = yup
  .object({
    name: yup.string().trim().min(1, 'Give the rule a name').max(120).required('Give the rule a name'),
    metricId: idText().required(),
    under: idText().nullable().default(null),
    attributes: attributeConditionsSchema(),
    /** Judges the values of whole periods; null = each sample. */
    over: overSchema.nullable().default(null),
    ...stageFields(),
    caution: cautionSchema,
    onDelayMs: length(0, MAX_DELAY_MS, 'A delay is 7 days at most'),
    offDelayMs: length(0, MAX_DELAY_MS, 'A delay is 7 days at most'),
    hours: hoursSchema.nullable().default(null),
    level: yup.string().oneOf(RULE_LEVELS).required(),
    suppress: yup
      .object({
        metricId: idText().required('Choose the state'),
        code: wholeNumber().required(),
        is: yup.boolean().required(),
      })
      .noUnknown()
      .nullable()
      .default(null),
    latching: yup.boolean().default(false),
    /** The rule whose place this one takes. */
    replaces: idText().nullable().default(null),
  })
  .noUnknown();
