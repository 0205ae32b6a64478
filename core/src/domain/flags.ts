import { flagEvidenceSchema } from '../schemas/evidence';
import { amount, amountOrNull, oneOf, shape, text, textOrNull, type TypeOf, named } from '../schemas/shape';
import { personSchema } from './person';

/** What a flag is about. */
export const FLAG_KINDS = ['breach', 'loss', 'remark'] as const;
export type FlagKind = (typeof FLAG_KINDS)[number];

export const FLAG_PRIORITIES = ['high', 'normal', 'low'] as const;
export type FlagPriority = (typeof FLAG_PRIORITIES)[number];

export const FLAG_STATUSES = ['open', 'inHand', 'done', 'notProblem'] as const;
export type FlagStatus = (typeof FLAG_STATUSES)[number];

export const FLAG_STATUS_WORDS: Readonly<Record<FlagStatus, string>> = {
  open: 'Open',
  inHand: 'In hand',
  done: 'Done',
  notProblem: 'Not a problem',
};

export const FLAG_OUTCOMES = ['mended', 'adjusted', 'noFault', 'waiting', 'other'] as const;
export type FlagOutcome = (typeof FLAG_OUTCOMES)[number];

export const OUTCOME_WORDS: Readonly<Record<FlagOutcome, string>> = {
  mended: 'Mended',
  adjusted: 'Adjusted',
  noFault: 'No fault found',
  waiting: 'Waiting for a part',
  other: 'Something else',
};

/** What a flag becomes when it is closed with an outcome. */
export function statusOfOutcome(outcome: FlagOutcome): FlagStatus {
  return outcome === 'noFault' ? 'notProblem' : 'done';
}

/** The numbers when the flag was handed out. They stay, even if the data is corrected later. */
export type FlagEvidence = TypeOf<typeof flagEvidenceSchema>;

export const flagEntity = named(
  'Flag',
  shape({
    id: text(),
    title: text(),
    note: text(),
    kind: oneOf(FLAG_KINDS),
    priority: oneOf(FLAG_PRIORITIES),
    status: oneOf(FLAG_STATUSES),
    alarmId: textOrNull(),
    metricId: textOrNull(),
    assetName: text(),
    /** Names of its asset from the plant down: "Quayside / Dryers / Dryer 1". */
    place: text(),
    plantId: text(),
    zone: text(),
    from: personSchema,
    to: personSchema,
    dueAt: amount(),
    createdAt: amount(),
    evidence: flagEvidenceSchema.nullable().defined(),
    closedAt: amountOrNull(),
    outcome: oneOf(FLAG_OUTCOMES).nullable(),
    outcomeNote: textOrNull(),
    /** Name from the organisation's list of causes. */
    cause: textOrNull(),
    minutesSpent: amountOrNull(),
  }),
);
export type Flag = TypeOf<typeof flagEntity>;

const PRIORITY_ORDER: Readonly<Record<FlagPriority, number>> = { high: 0, normal: 1, low: 2 };

/** Sorts flags: overdue ones first, longest overdue in front; then by priority, then by due date. */
export function byUrgency(now: number): (a: Flag, b: Flag) => number {
  const late = (flag: Flag): boolean => flag.closedAt === null && flag.dueAt < now;
  return (a, b) =>
    Number(late(b)) - Number(late(a)) ||
    (late(a) ? a.dueAt - b.dueAt : PRIORITY_ORDER[a.priority] - PRIORITY_ORDER[b.priority]) ||
    a.dueAt - b.dueAt ||
    Number(a.id) - Number(b.id);
}
