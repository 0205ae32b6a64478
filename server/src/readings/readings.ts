import { writeQuery, writeTrend, type Query, type RehearsalOrder, type TrendAsk } from '@vivid-beacon/core';
import { learnUsual, type ToLearn } from '../alarms/learn';
import { rehearseOtherLimits, rehearseRule } from '../alarms/rehearsal';
import { previewExpression } from '../derived/preview';
import { coverageByDay } from '../feeds/coverageByDay';
import { readDegreeDays } from '../feeds/degreeDays';
import {
  pastOfIndicator,
  previewIndicator,
  readWholeIndicator,
  suggestedTargets,
} from '../indicators/history';
import { readDefinition, readIndicatorLosses, readIndicators } from '../indicators/indicators';
import { readWatch } from '../watch/readWatch';
import { describeDistribution } from './distribution';
import { answerQuery } from './query';
import { readValue } from './read';
import type { ReadContext } from './readContext';
import { readStretch } from './stretch';
import { readLevels, readTrend } from './trend';

/** Answers a question from what is stored and changes nothing. Bytes are sent as they are, all else as JSON. */
export type Reading<Ask, Answer = unknown> = (context: ReadContext, ask: Ask) => Promise<Answer>;

/** Lets the types of question and answer follow from the function. */
function reading<Ask, Answer>(read: Reading<Ask, Answer>): Reading<Ask, Answer> {
  return read;
}

/**
 * Everything that is computed from samples for somebody who waits. Each begins where everybody is answered and goes on in
 * a thread of its own when it turns out to be long.
 */
export const READINGS = {
  value: reading(readValue),
  trend: reading(readTrend),
  trendColumns: reading(async (context, ask: TrendAsk) => writeTrend(await readTrend(context, ask))),
  levels: reading(readLevels),
  distribution: reading(describeDistribution),
  stretch: reading(readStretch),
  query: reading(answerQuery),
  queryColumns: reading(async (context, query: Query) => writeQuery(await answerQuery(context, query))),
  coverage: reading(coverageByDay),
  degreeDays: reading(readDegreeDays),
  expression: reading(previewExpression),
  rehearsal: reading(({ db, now }, { days, ...draft }: RehearsalOrder) => rehearseRule(db, draft, days, now)),
  otherLimits: reading(({ db, now }, { days, ...draft }: RehearsalOrder) =>
    rehearseOtherLimits(db, draft, days, now),
  ),
  learning: reading(({ db }, ask: ToLearn) => learnUsual(db, ask)),
  definition: reading((context, { definition, targets }: Parameters<typeof previewIndicator>[1]) =>
    readDefinition(context, definition, targets),
  ),
  indicator: reading(readWholeIndicator),
  indicatorPast: reading(pastOfIndicator),
  indicatorPreview: reading(previewIndicator),
  suggestedTargets: reading(suggestedTargets),
  indicators: reading((context) => readIndicators(context)),
  timeByLevel: reading(readIndicatorLosses),
  onWatch: reading((context) => readWatch(context)),
} as const;

export type ReadingName = keyof typeof READINGS;
export type AskOf<Name extends ReadingName> = Parameters<(typeof READINGS)[Name]>[1];
export type AnswerOf<Name extends ReadingName> = Awaited<ReturnType<(typeof READINGS)[Name]>>;

/** What nobody chooses the size of, or what bounds itself: it is answered however much there is. */
export const UNBOUNDED: ReadonlySet<ReadingName> = new Set([
  'rehearsal',
  'otherLimits',
  'learning',
  'indicators',
  'timeByLevel',
  'onWatch',
]);
