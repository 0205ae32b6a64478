import { DEFAULT_CALENDAR, gapOfPeriods, type Level, type MetricKind } from '@vivid-beacon/core';
import type { AlarmCondition, AlarmModel } from '@vivid-beacon/core/src/alarming';
import type { WatchRow } from './watchSql';

/** The condition of a rule on a metric, as core expects it. @param levelAt of a rule on an indicator's levels. */
export function conditionOf(
  rule: Pick<WatchRow, 'test' | 'over' | 'onDelayMs' | 'offDelayMs' | 'hours'>,
  metric: {
    readonly kind: MetricKind;
    readonly maxGapMs: number;
    readonly intervalMs: number;
    readonly rollover: number | null;
    readonly zone: string;
  },
  calendar: WatchRow['calendar'],
  model: AlarmModel | null,
  levelAt?: (t: number) => Level | null,
): AlarmCondition {
  const { test, over, onDelayMs, offDelayMs, hours } = rule;
  const { kind, maxGapMs, intervalMs, rollover, zone } = metric;
  return {
    test,
    onDelayMs,
    offDelayMs,
    // The hours of a rule over periods have narrowed its values already.
    ...(over === null ? { maxGapMs, hours } : { maxGapMs: gapOfPeriods(over.period), hours: null }),
    ...(levelAt && { levelAt }),
    site: { zone, calendar: calendar ?? DEFAULT_CALENDAR },
    reading: { kind, intervalMs, rollover },
    model,
  };
}

export const conditionOfWatch = (watch: WatchRow, levelAt?: (t: number) => Level | null): AlarmCondition =>
  conditionOf(watch, watch, watch.calendar, watch.model, levelAt);
