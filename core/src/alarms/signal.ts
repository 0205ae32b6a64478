import { counterStep } from '../summary/counterStep';
import { DAY_MS, HOUR_MS } from '../time/lengths';
import { hourOfWeek, type AlarmModel } from './alarmModel';
import type { AlarmTest, ConsumptionPeriod } from './alarmTest';
import type { Series } from '../series/series';
import type { Interval } from '../time/interval';
import { addToPoint, type OpenPoint } from './chartPoints';
import type { AlarmCondition } from './condition';
import type { SignalMemory } from './signalMemory';
import { consumptionSpan } from './consumptionSpan';
import { brokenRunRules, RUN_LENGTH } from './nelson';

/**
 * How bad each sample is, as one number that is compared with one limit ({@link thresholdOf}): the larger, the worse.
 * NaN = it cannot be told. `shown` is the value that a person is told with it.
 */
export interface Signal {
  readonly x: Float64Array;
  readonly shown: Float64Array;
  readonly memory: SignalMemory | undefined;
}

/** The limit of a signal, and how far it must come back from it. */
export function thresholdOf(test: AlarmTest): { readonly limit: number; readonly deadband: number } {
  switch (test.kind) {
    case 'limit':
      return { limit: test.side === 'above' ? test.limit : -test.limit, deadband: test.deadband };
    case 'outside':
      return { limit: 0, deadband: test.deadband };
    case 'change':
    case 'baseline':
      return { limit: test.limit, deadband: test.deadband };
    case 'consumption':
      return { limit: test.limit, deadband: 0 };
    default:
      return { limit: 0.5, deadband: 0 };
  }
}

/** A number of the signal as a person reads it: of a limit from below it is turned round. */
export function readableSignal(test: AlarmTest, x: number): number {
  return test.kind === 'limit' && test.side === 'below' ? -x : x;
}

/** How far before the newest judged sample a signal must see samples again; ms. */
export function recallMs({ test, maxGapMs }: Pick<AlarmCondition, 'test' | 'maxGapMs'>): number {
  return test.kind === 'change' ? test.overMs + maxGapMs : 0;
}

/** From where samples must be run through a condition, so that it stands right at an instant; ms. */
export function contextStart(condition: AlarmCondition, at: number): number {
  const { test, maxGapMs, reading, site } = condition;
  const settle = 2 * Math.max(condition.onDelayMs, condition.offDelayMs, maxGapMs);
  switch (test.kind) {
    case 'silence':
      return at - 2 * test.forMs;
    case 'consumption':
      // The sample before the period tells what a register stood at.
      return consumptionSpan(at, test.per, site.zone).start - maxGapMs;
    case 'runRules': {
      const point = { sample: reading.intervalMs, hour: HOUR_MS, day: DAY_MS }[test.point];
      return at - settle - 2 * RUN_LENGTH * point;
    }
    default:
      return at - settle - recallMs(condition);
  }
}

/**
 * The signal of a condition over samples.
 *
 * @param memory what it carried over. @param first index of the first sample that is new; those before are only looked back to.
 */
export function signalOf(
  condition: AlarmCondition,
  series: Series,
  memory: SignalMemory | undefined,
  first: number,
): Signal {
  const { test } = condition;
  const { v } = series;
  const plain = (x: Float64Array): Signal => ({ x, shown: v, memory: undefined });
  switch (test.kind) {
    case 'limit':
      return plain(test.side === 'above' ? v : v.map((value) => -value));
    case 'outside':
      return plain(v.map((value) => Math.max(value - test.high, test.low - value)));
    case 'change':
      return plain(changes(test, condition.maxGapMs, series));
    case 'silence':
      return plain(new Float64Array(v.length));
    case 'consumption':
      return consumption(test, condition, series, memory?.kind === 'consumption' ? memory : null, first);
    case 'state':
      return plain(v.map((value) => ((value === test.code) === test.is ? 1 : 0)));
    case 'runRules':
      return chart(test, condition, series, memory?.kind === 'chart' ? memory : null, first);
    case 'baseline':
      return plain(deviations(test, condition.model, condition.site.zone, series));
  }
}

/** Against the value that stood `overMs` before: the newest sample then, no older than the longest allowed gap. */
function changes(test: AlarmTest & { kind: 'change' }, maxGapMs: number, { t, v }: Series): Float64Array {
  const x = new Float64Array(t.length).fill(NaN);
  const { side, inPercent, overMs } = test;
  // Samples without a value are none to compare with.
  let base = -1;
  let next = 0;
  for (let i = 0; i < t.length; i++) {
    const then = t[i] - overMs;
    while (next <= i && t[next] <= then) {
      if (!Number.isNaN(v[next])) base = next;
      next++;
    }
    if (base < 0 || then - t[base] > maxGapMs) continue;
    const change = v[i] - v[base];
    const size = inPercent ? percentOf(change, v[base]) : change;
    x[i] = side === 'either' ? Math.abs(size) : side === 'fall' ? -size : size;
  }
  return x;
}

/** Percent of a negative base counts against its size; of nothing, only no change is a percentage. */
function percentOf(change: number, base: number): number {
  if (base === 0) return change === 0 ? 0 : NaN;
  return (100 * change) / Math.abs(base);
}

/** Share of a period that must be over before its pace is told. */
const PACE_FROM = 0.1;

/**
 * Sum of a local calendar period so far. A register's gain counts where it is read. At a pace: what the
 * whole period would come to.
 */
function consumption(
  test: { readonly per: ConsumptionPeriod; readonly pace: boolean },
  { reading, site }: AlarmCondition,
  { t, v }: Series,
  memory: { start: number; total: number; last: number | null } | null,
  first: number,
): Signal {
  const x = new Float64Array(t.length).fill(NaN);
  const totals = new Float64Array(t.length).fill(NaN);
  let { total, last } = memory ?? { total: 0, last: null };
  let span = memory ? consumptionSpan(memory.start, test.per, site.zone) : null;
  for (let i = first; i < t.length; i++) {
    if (Number.isNaN(v[i])) continue;
    if (!span || t[i] >= span.end) {
      span = consumptionSpan(t[i], test.per, site.zone);
      total = 0;
    }
    if (reading.kind === 'register') {
      if (last !== null) total += counterStep(last, v[i], reading.rollover);
      last = v[i];
    } else total += v[i];
    totals[i] = total;
    x[i] = test.pace
      ? atPace(total, t[i] + (reading.kind === 'amount' ? reading.intervalMs : 0), span)
      : total;
  }
  const carried = span && ({ kind: 'consumption', start: span.start, total, last } as const);
  return { x, shown: totals, memory: carried ?? undefined };
}

function atPace(total: number, upTo: number, { start, end }: Interval): number {
  const share = (Math.min(upTo, end) - start) / (end - start);
  return share < PACE_FROM ? -Infinity : total / share;
}

/** 1 while the newest finished point breaks one of the run rules. */
function chart(
  test: AlarmTest & { kind: 'runRules' },
  { model, reading, maxGapMs, site }: AlarmCondition,
  { t, v }: Series,
  memory: { readonly open: OpenPoint | null; readonly z: readonly number[] } | null,
  first: number,
): Signal {
  const x = new Float64Array(t.length).fill(NaN);
  let open = memory?.open ?? null;
  let z = memory?.z ?? [];
  if (model?.kind !== 'chart') return { x, shown: v, memory: { kind: 'chart', open, z } };
  let broken = brokenRunRules(z, test.rules).length > 0 ? 1 : 0;
  const take = (value: number): void => {
    // An hour or a day without enough data breaks the row.
    z = Number.isNaN(value) ? [] : [...z.slice(1 - RUN_LENGTH), (value - model.centre) / model.sigma];
    broken = brokenRunRules(z, test.rules).length > 0 ? 1 : 0;
  };
  const { point } = test;
  const held = { kind: reading.kind, maxGapMs };
  for (let i = first; i < t.length; i++) {
    if (Number.isNaN(v[i])) continue;
    if (point === 'sample') take(v[i]);
    else {
      const step = addToPoint(open, t[i], v[i], point, held, site.zone);
      open = step.open;
      if (step.finished !== null) take(step.finished);
    }
    x[i] = broken;
  }
  return { x, shown: v, memory: { kind: 'chart', open, z } };
}

function deviations(
  test: AlarmTest & { kind: 'baseline' },
  model: AlarmModel | null,
  zone: string,
  { t, v }: Series,
): Float64Array {
  const x = new Float64Array(t.length).fill(NaN);
  if (model?.kind !== 'hours') return x;
  for (let i = 0; i < t.length; i++) {
    const hour = hourOfWeek(t[i], zone);
    const mean = model.mean[hour];
    const sd = model.sd[hour];
    if (mean === null || sd === null) continue;
    const z = (v[i] - mean) / sd;
    x[i] = test.side === 'either' ? Math.abs(z) : test.side === 'below' ? -z : z;
  }
  return x;
}
