import {
  BeaconError,
  DAY_MS,
  sliceSeries,
  unitOfLimit,
  type AlarmTest,
  type CourseAnswer,
  type CourseOrder,
  type Interval,
  type RehearsalAnswer,
  type RuleOver,
} from '@vivid-beacon/core';
import {
  fitAlarmModel,
  needsModel,
  rehearse,
  rehearseLimits,
  signalCourse,
  type OtherLimits,
  type RehearsedMetric,
} from '@vivid-beacon/core/src/alarming';
import { calendarOf } from '../calendars/sql';
import { spend } from '../db/readBudget';
import type { MetricRow } from '../metrics/sql';
import type { ReadContext } from '../readings/readContext';
import { readSeries } from '../samples/readSeries';
import { conditionOf } from './condition';
import { LEARN_MS } from './learn';
import { levelsOfPeriods, readPeriods, seriesOfPeriods, shownOf } from './readPeriods';
import type { RuleParts } from './rulesSql';
import { watchedMetrics } from './watched';

/** With less history than this before the window, it learns from the window itself. */
const LEARN_AT_LEAST_MS = 14 * DAY_MS;

/**
 * Runs a draft on the last `days` of samples of all watched metrics, or on fewer days if those are too many
 * samples.
 */
export async function rehearseRule(
  context: ReadContext,
  draft: RuleParts,
  days: number,
): Promise<RehearsalAnswer> {
  const { runs, window, learntOnItself, unlearnt } = await pastOfDraft(context, draft, days);
  const samples = samplesOf(runs);
  const stages = draft.caution ? 2 : 1;
  spend(context.db, samples * OF_REHEARSAL * stages);
  const caution = draft.caution && rehearse(withTest(runs, draft.caution.test), window);
  return { ...rehearse(runs, window), caution, samples, metrics: runs.length, learntOnItself, unlearnt };
}

/** The same past with another test of the same kind, which learns the same. */
const withTest = (runs: readonly RehearsedMetric[], test: AlarmTest): RehearsedMetric[] =>
  runs.map(({ condition, series }) => ({ condition: { ...condition, test }, series }));

/** Runs the draft with other limits. */
export async function rehearseOtherLimits(
  context: ReadContext,
  draft: RuleParts,
  days: number,
): Promise<OtherLimits> {
  const { runs, metrics, window } = await pastOfDraft(context, draft, days);
  spend(context.db, samplesOf(runs) * OF_OTHER_LIMITS);
  const { unit = '', decimals = 0 } = draft.over
    ? await shownOf(context, { ...draft, over: draft.over })
    : (metrics[0] ?? {});
  return rehearseLimits(runs, window, unitOfLimit(draft.test, { unit, decimals }).decimals);
}

/** Cost relative to reading the samples. */
const OF_REHEARSAL = 2;
const OF_OTHER_LIMITS = 12;

function samplesOf(runs: readonly RehearsedMetric[]): number {
  return runs.reduce((n, { series }) => n + series.t.length, 0);
}

interface DraftPast {
  readonly metrics: readonly MetricRow[];
  readonly runs: readonly RehearsedMetric[];
  readonly window: Interval;
  readonly learntOnItself: boolean;
  readonly unlearnt: number;
}

/** Most samples in a rehearsal, 16 bytes each plus what is derived from them. */
const MAX_SAMPLES = 20_000_000;

/** As many days as memory allows, at least one; the answer contains the window. */
function affordableDays(metrics: readonly Pick<MetricRow, 'intervalMs'>[], days: number): number {
  const aDay = metrics.reduce((sum, { intervalMs }) => sum + DAY_MS / intervalMs, 0);
  return Math.max(1, Math.min(days, Math.floor(MAX_SAMPLES / aDay)));
}

/** What the draft compares with its limit on one of its metrics. @throws {BeaconError} BAD_INPUT for another metric. */
export async function rehearseCourse(
  context: ReadContext,
  draft: RuleParts,
  { days, courseOf, columns }: Pick<CourseOrder, 'days' | 'courseOf' | 'columns'>,
): Promise<CourseAnswer> {
  const metrics = (await watchedMetrics(context, draft)).filter(({ id }) => id === courseOf);
  if (metrics.length === 0) {
    throw new BeaconError('BAD_INPUT', 'The rule would not watch this metric.', 'courseOf');
  }
  const { runs, window } = await pastOfMetrics(context, draft, metrics, days);
  spend(context.db, samplesOf(runs) * OF_REHEARSAL);
  const [{ unit, decimals }] = metrics;
  const shown = draft.over ? await shownOf(context, { ...draft, over: draft.over }) : { unit, decimals };
  return { ...signalCourse(runs[0], window, columns), ...unitOfLimit(draft.test, shown) };
}

async function pastOfDraft(context: ReadContext, draft: RuleParts, days: number): Promise<DraftPast> {
  return pastOfMetrics(context, draft, await watchedMetrics(context, draft), days);
}

async function pastOfMetrics(
  context: ReadContext,
  draft: RuleParts,
  metrics: readonly MetricRow[],
  days: number,
): Promise<DraftPast> {
  const { db, now } = context;
  if (draft.over) return pastOfPeriods(context, { ...draft, over: draft.over }, metrics, days);
  const window = { start: now - affordableDays(metrics, days) * DAY_MS, end: now };
  const learns = needsModel(draft.test);
  const from = learns ? window.start - LEARN_MS : window.start;
  const series = await readSeries(
    db,
    metrics.map(({ id }) => id),
    from,
    window.end,
  );
  let learntOnItself = false;
  let unlearnt = 0;
  const runs: RehearsedMetric[] = [];
  for (const metric of metrics) {
    const all = series.get(metric.id)!;
    const inWindow = sliceSeries(all, window.start, window.end);
    const before = sliceSeries(all, from, window.start);
    const enough = before.t.length > 0 && window.start - before.t[0] >= LEARN_AT_LEAST_MS;
    const model = learns ? fitAlarmModel(draft.test, enough ? before : inWindow, metric, metric.zone) : null;
    if (learns && !enough) learntOnItself = true;
    if (learns && model === null) unlearnt++;
    const calendar = await calendarOf(db, metric.plantId);
    runs.push({ condition: conditionOf(draft, metric, calendar, model), series: inWindow });
  }
  return { runs, metrics, window, learntOnItself, unlearnt };
}

/** Most values of periods in a rehearsal: each is a reading of its own. By the hour, the shortest. */
const MAX_PERIODS_REHEARSED = 250_000;
const PERIODS_A_DAY = 24;

/** The values of all periods that end in the window, by the code that judges them live. */
async function pastOfPeriods(
  context: ReadContext,
  draft: RuleParts & { readonly over: RuleOver },
  metrics: readonly MetricRow[],
  days: number,
): Promise<DraftPast> {
  const most = Math.floor(MAX_PERIODS_REHEARSED / (metrics.length * PERIODS_A_DAY));
  const window = { start: context.now - Math.max(1, Math.min(days, most)) * DAY_MS, end: context.now };
  const runs: RehearsedMetric[] = [];
  for (const metric of metrics) {
    const { over, hours } = draft;
    const { periods } = await readPeriods(context, { metricId: metric.id, over, hours, ...window });
    const calendar = await calendarOf(context.db, metric.plantId);
    const condition = conditionOf(draft, metric, calendar, null, levelsOfPeriods(periods));
    runs.push({ condition, series: seriesOfPeriods(periods) });
  }
  return { runs, metrics, window, learntOnItself: false, unlearnt: 0 };
}
