import { counterStep } from '../summary/counterStep';
import { DAY_MS, HOUR_MS } from '../time/lengths';
import { hourOfWeek, type AlarmModel } from './alarmModel';
import type { AlarmTest, ConsumptionPeriod } from './alarmTest';
import { addToPoint, type OpenPoint } from './chartPoints';
import type { AlarmCondition } from './condition';
import { consumptionSpan } from './consumptionSpan';
import { brokenRunRules, RUN_LENGTH } from './nelson';

/** What a signal carries from one batch of samples to the next; plain data. */
export type SignalMemory =
  | {
      readonly kind: 'consumption';
      readonly start: number;
      readonly total: number;
      readonly last: number | null;
    }
  | { readonly kind: 'chart'; readonly open: OpenPoint | null; readonly z: readonly number[] };

/**
 * How bad a sample is, as one number that is compared with one limit ({@link thresholdOf}): the larger, the worse.
 * NaN = it cannot be told. `shown` is the value that a person is told with it.
 */
export interface Signal {
  readonly see: (t: number, v: number) => number;
  readonly shown: (v: number) => number;
  readonly memory: () => SignalMemory | undefined;
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

const plain = { shown: (v: number) => v, memory: () => undefined };

/** Starts the signal of a condition from what it carried over. */
export function makeSignal(condition: AlarmCondition, memory: SignalMemory | undefined): Signal {
  const { test } = condition;
  switch (test.kind) {
    case 'limit':
      return { ...plain, see: test.side === 'above' ? (_, v) => v : (_, v) => -v };
    case 'outside':
      return { ...plain, see: (_, v) => Math.max(v - test.high, test.low - v) };
    case 'change':
      return changeSignal(test, condition.maxGapMs);
    case 'silence':
      return { ...plain, see: () => 0 };
    case 'consumption':
      return consumptionSignal(test, condition, memory?.kind === 'consumption' ? memory : null);
    case 'state':
      return { ...plain, see: (_, v) => ((v === test.code) === test.is ? 1 : 0) };
    case 'runRules':
      return chartSignal(test, condition, memory?.kind === 'chart' ? memory : null);
    case 'baseline':
      return { ...plain, see: baselineSignal(test, condition.model, condition.site.zone) };
  }
}

/** Against the value that stood `overMs` before: the newest sample then, no older than the longest allowed gap. */
function changeSignal(test: AlarmTest & { kind: 'change' }, maxGapMs: number): Signal {
  let t: number[] = [];
  let v: number[] = [];
  let base = -1;
  return {
    ...plain,
    see: (at, value) => {
      t.push(at);
      v.push(value);
      const then = at - test.overMs;
      while (base + 1 < t.length && t[base + 1] <= then) base++;
      if (base > 4096) {
        t = t.slice(base);
        v = v.slice(base);
        base = 0;
      }
      if (base < 0 || then - t[base] > maxGapMs) return NaN;
      const change = value - v[base];
      const size = test.inPercent ? percentOf(change, v[base]) : change;
      return test.side === 'either' ? Math.abs(size) : test.side === 'fall' ? -size : size;
    },
  };
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
function consumptionSignal(
  test: { readonly per: ConsumptionPeriod; readonly pace: boolean },
  { reading, site }: AlarmCondition,
  memory: { start: number; total: number; last: number | null } | null,
): Signal {
  let { total, last } = memory ?? { total: 0, last: null };
  let span = memory ? consumptionSpan(memory.start, test.per, site.zone) : null;
  return {
    see: (t, v) => {
      if (!span || t >= span.end) {
        span = consumptionSpan(t, test.per, site.zone);
        total = 0;
      }
      if (reading.kind === 'register') {
        if (last !== null) total += counterStep(last, v, reading.rollover);
        last = v;
      } else total += v;
      if (!test.pace) return total;
      const upTo = reading.kind === 'amount' ? t + reading.intervalMs : t;
      const share = (Math.min(upTo, span.end) - span.start) / (span.end - span.start);
      return share < PACE_FROM ? -Infinity : total / share;
    },
    shown: () => total,
    memory: () => (span ? { kind: 'consumption', start: span.start, total, last } : undefined),
  };
}

/** 1 while the newest finished point breaks one of the run rules. */
function chartSignal(
  test: AlarmTest & { kind: 'runRules' },
  { model, reading, maxGapMs, site }: AlarmCondition,
  memory: { readonly open: OpenPoint | null; readonly z: readonly number[] } | null,
): Signal {
  let open = memory?.open ?? null;
  let z = [...(memory?.z ?? [])];
  const broken = (): number => (brokenRunRules(z, test.rules).length > 0 ? 1 : 0);
  let x = broken();
  const take = (value: number): void => {
    if (model?.kind !== 'chart') return;
    // An hour or a day without enough data breaks the row.
    z = Number.isNaN(value) ? [] : [...z.slice(1 - RUN_LENGTH), (value - model.centre) / model.sigma];
    x = broken();
  };
  return {
    ...plain,
    see: (t, v) => {
      if (model?.kind !== 'chart') return NaN;
      if (test.point === 'sample') take(v);
      else {
        const step = addToPoint(open, t, v, test.point, { kind: reading.kind, maxGapMs }, site.zone);
        open = step.open;
        if (step.finished !== null) take(step.finished);
      }
      return x;
    },
    memory: () => ({ kind: 'chart', open, z }),
  };
}

function baselineSignal(
  test: AlarmTest & { kind: 'baseline' },
  model: AlarmModel | null,
  zone: string,
): (t: number, v: number) => number {
  if (model?.kind !== 'hours') return () => NaN;
  return (t, v) => {
    const hour = hourOfWeek(t, zone);
    const mean = model.mean[hour];
    const sd = model.sd[hour];
    if (mean === null || sd === null) return NaN;
    const z = (v - mean) / sd;
    return test.side === 'either' ? Math.abs(z) : test.side === 'below' ? -z : z;
  };
}
