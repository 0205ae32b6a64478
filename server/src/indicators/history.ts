import {
  periodOfWindow,
  BeaconError,
  coveredValue,
  plusPeriods,
  startOfPeriod,
  type IndicatorDefinition,
  type IndicatorVersion,
  type PeriodTarget,
  type IndicatorPast,
  type SuggestAsk,
  type WholeIndicator,
  type IndicatorPreview,
  type SuggestedTargets,
} from '@vivid-beacon/core';
import { suggestTargets } from '@vivid-beacon/core/src/aggregation';
import type { Reader } from '../db/reader';
import { loadMeasure } from '../readings/measure';
import type { ReadContext } from '../readings/readContext';
import { judgePast, readDefinition, readIndicator } from './indicators';
import { findIndicator, listVersions, targetsOf, type IndicatorRow } from './sql';

const PREVIEW_PERIODS = 30;
const SUGGEST_PERIODS = 90;

/** The last `count` periods of an indicator with the one under way. @param versions newest first. */
export async function pastOf(
  context: ReadContext,
  versions: readonly IndicatorVersion[],
  targets: readonly PeriodTarget[],
  count: number,
): Promise<IndicatorPast> {
  const { now } = context;
  const { definition } = versions[0];
  const { zone, calendar } = await loadMeasure(context, definition.measure);
  const bucket = periodOfWindow(definition.window, now, zone);
  const current = startOfPeriod(now, bucket, zone, calendar);
  const start = plusPeriods(current, 1 - count, bucket, zone);
  const { financialYearMonth } = calendar;
  return {
    bucket,
    zone,
    financialYearMonth,
    periods: await judgePast(context, versions, targets, { start, end: now }, bucket),
  };
}

/** @throws {BeaconError} NOT_FOUND */
export async function needIndicator(db: Reader, id: string): Promise<IndicatorRow> {
  const row = await findIndicator(db, id);
  if (!row) throw new BeaconError('NOT_FOUND', 'This indicator does not exist.');
  return row;
}

/** One indicator with its present value, every definition it has had and the targets typed in for it. */
export async function readWholeIndicator(
  context: ReadContext,
  { id }: { readonly id: string },
): Promise<WholeIndicator> {
  const { db } = context;
  const row = await needIndicator(db, id);
  const targets = (await targetsOf(db, [row.id])).get(row.id)!;
  return {
    indicator: await readIndicator(context, row, targets),
    versions: await listVersions(db, row.id),
    targets,
  };
}

/** The last periods of an indicator that is there. */
export async function pastOfIndicator(
  context: ReadContext,
  { id, periods }: { readonly id: string; readonly periods: number },
): Promise<IndicatorPast> {
  const { db } = context;
  await needIndicator(db, id);
  const versions = await listVersions(db, id);
  const targets = (await targetsOf(db, [id])).get(id)!;
  return pastOf(context, versions, targets, periods);
}

/** Current value and past of a draft definition. */
export async function previewIndicator(
  context: ReadContext,
  {
    definition,
    targets,
  }: { readonly definition: IndicatorDefinition; readonly targets: readonly PeriodTarget[] },
): Promise<IndicatorPreview> {
  const versions = [{ version: 1, validFrom: 0, by: '', definition }];
  return {
    ...(await readDefinition(context, definition, targets)),
    ...(await pastOf(context, versions, targets, PREVIEW_PERIODS)),
  };
}

/** Targets that the finished periods of a measure suggest, by periods as long as its window. */
export async function suggestedTargets(
  context: ReadContext,
  { measure, window, hours, direction }: SuggestAsk,
): Promise<SuggestedTargets> {
  const definition = {
    measure,
    window,
    hours,
    judge: { kind: 'target', direction: 'higher', clear: 100, caution: 100 },
    target: { kind: 'none' },
  } as unknown as IndicatorDefinition;
  const versions = [{ version: 1, validFrom: 0, by: '', definition }];
  const { bucket, periods } = await pastOf(context, versions, [], SUGGEST_PERIODS);
  const past = periods
    .filter(({ end }) => end <= context.now)
    .map(({ start, end, value, coverage }) => ({
      start,
      end,
      value: coveredValue({ value, coverage }),
    }));
  return { bucket, suggestions: suggestTargets(past, direction) };
}
