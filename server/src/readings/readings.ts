import { writeTrend, type Measure, type Query, type WindowSpec } from '@vivid-beacon/core';
import { learnUsual, type ToLearn } from '../alarms/learn';
import { rehearseOtherLimits, rehearseRule } from '../alarms/rehearsal';
import type { RuleParts } from '../alarms/rulesSql';
import type { Queryable } from '../db/database';
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
import { columnsOfQuery } from './columns';
import { describeDistribution } from './distribution';
import { answerQuery } from './query';
import { readValue } from './read';
import { readStretch } from './stretch';
import { readLevels, readTrend, type TrendAsk } from './trend';

/** Answers a question from what is stored and changes nothing. Bytes are sent as they are, all else as JSON. */
export type Reading<Ask> = (db: Queryable, ask: Ask, now: number) => Promise<unknown>;

/** Lets the type of what is asked follow from the function. */
function reading<Ask>(read: Reading<Ask>): Reading<Ask> {
  return read;
}

/**
 * Everything that is computed from samples for somebody who waits. Each begins where everybody is answered and goes on in
 * a thread of its own when it turns out to be long.
 */
export const READINGS = {
  value: reading(readValue),
  trend: reading(readTrend),
  trendColumns: reading(async (db, ask: TrendAsk, now) => writeTrend(await readTrend(db, ask, now))),
  levels: reading(readLevels),
  distribution: reading((db, { measure, window }: { measure: Measure; window: WindowSpec }, now) =>
    describeDistribution(db, measure, window, now),
  ),
  stretch: reading(readStretch),
  query: reading(answerQuery),
  queryColumns: reading(async (db, query: Query, now) => columnsOfQuery(await answerQuery(db, query, now))),
  coverage: reading(coverageByDay),
  degreeDays: reading(readDegreeDays),
  expression: reading(previewExpression),
  rehearsal: reading((db, { draft, days }: { draft: RuleParts; days: number }, now) =>
    rehearseRule(db, draft, days, now),
  ),
  otherLimits: reading((db, { draft, days }: { draft: RuleParts; days: number }, now) =>
    rehearseOtherLimits(db, draft, days, now),
  ),
  learning: reading((db, ask: ToLearn) => learnUsual(db, ask)),
  definition: reading((db, { definition, targets }: Parameters<typeof previewIndicator>[1], now) =>
    readDefinition(db, definition, targets, now),
  ),
  indicator: reading(readWholeIndicator),
  indicatorPast: reading(pastOfIndicator),
  indicatorPreview: reading(previewIndicator),
  suggestedTargets: reading(suggestedTargets),
  indicators: reading((db, _: null, now) => readIndicators(db, now)),
  timeByLevel: reading((db, { days }: { days: number }, now) => readIndicatorLosses(db, days, now)),
  onWatch: reading((db, _: null, now) => readWatch(db, now)),
} as const;

export type ReadingName = keyof typeof READINGS;
export type AskOf<Name extends ReadingName> = Parameters<(typeof READINGS)[Name]>[1];

/** What nobody chooses the size of, or what bounds itself: it is answered however much there is. */
export const UNBOUNDED: ReadonlySet<ReadingName> = new Set([
  'rehearsal',
  'otherLimits',
  'learning',
  'indicators',
  'timeByLevel',
  'onWatch',
]);
