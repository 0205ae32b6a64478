import type { MetricKind } from '../domain/metric';
import type { Series } from '../series/series';
import { isFromBelow, traitsOf, type AlarmTest } from './alarmTest';
import type { AlarmCondition } from './condition';
import type { Signal, Threshold } from './tests/testKind';

export type { Signal, Threshold };

/**
 * What a test learnt from its metric's past when the rule was put in force, as plain data. It is not updated
 * later.
 */
export type AlarmModel = object;

/** The limit of a signal, and the limit for its return. */
export function thresholdOf(test: AlarmTest): Threshold {
  return traitsOf(test).threshold(test);
}

/** A signal value as people read it: the sign is restored for tests on low values. */
export function readableSignal(test: AlarmTest, x: number): number {
  return isFromBelow(test) ? -x : x;
}

/** How much history before the newest evaluated sample the signal needs, ms. */
export function lookBackMs(condition: AlarmCondition): number {
  const { test } = condition;
  return traitsOf(test).lookBackMs?.(test, condition) ?? 0;
}

/** Earliest sample time (ms) needed to evaluate the condition at `at`. */
export function historyStart(condition: AlarmCondition, at: number): number {
  const { test, onDelayMs, offDelayMs, maxGapMs } = condition;
  const settle = 2 * Math.max(onDelayMs, offDelayMs, maxGapMs);
  const own = traitsOf(test).contextStart?.(test, condition, at, settle);
  return own ?? at - settle - lookBackMs(condition);
}

/**
 * The signal of a condition's test over samples.
 *
 * @param memory the test's state after the previous samples. @param first index of the first new sample;
 * earlier ones serve as history only.
 */
export function signalOf(
  condition: AlarmCondition,
  series: Series,
  memory: object | undefined,
  first: number,
): Signal {
  const { test } = condition;
  return traitsOf(test).signal(test, condition, series, memory, first);
}

/** Whether a test has to learn from the past first. */
export function needsModel(test: AlarmTest): boolean {
  return traitsOf(test).learn !== undefined;
}

/** Learns from past samples; null when the test needs no model or there are too few samples. */
export function fitAlarmModel(
  test: AlarmTest,
  past: Series,
  reading: { readonly kind: MetricKind; readonly maxGapMs: number },
  zone: string,
): AlarmModel | null {
  return traitsOf(test).learn?.(test, past, reading, zone) ?? null;
}
