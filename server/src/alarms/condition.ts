import { DEFAULT_CALENDAR, type MetricKind } from '@vivid-beacon/core';
import type { AlarmCondition, AlarmModel } from '@vivid-beacon/core/src/alarming';
import type { WatchRow } from './watchSql';

/** The condition of a rule on a metric, as core expects it. */
export function conditionOf(
  rule: Pick<WatchRow, 'test' | 'onDelayMs' | 'offDelayMs' | 'hours'>,
  metric: {
    readonly kind: MetricKind;
    readonly maxGapMs: number;
    readonly intervalMs: number;
    readonly rollover: number | null;
    readonly zone: string;
  },
  calendar: WatchRow['calendar'],
  model: AlarmModel | null,
): AlarmCondition {
  const { test, onDelayMs, offDelayMs, hours } = rule;
  const { kind, maxGapMs, intervalMs, rollover, zone } = metric;
  return {
    test,
    onDelayMs,
    offDelayMs,
    maxGapMs,
    hours,
    site: { zone, calendar: calendar ?? DEFAULT_CALENDAR },
    reading: { kind, intervalMs, rollover },
    model,
  };
}

export const conditionOfWatch = (watch: WatchRow): AlarmCondition =>
  conditionOf(watch, watch, watch.calendar, watch.model);
