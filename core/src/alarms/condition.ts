import type { MetricReading } from '../domain/metric';
import type { HoursFilter } from '../time/hours';
import type { WorkingCalendar } from '../calendar/workingCalendar';
import type { AlarmModel } from './alarmModel';
import type { AlarmTest } from './alarmTest';
import type { SignalMemory } from './signal';

/**
 * When a metric is in alarm: what the test looks for, held for the on-delay; back to normal once the good side
 * of limit ∓ deadband has held for the off-delay. Delays in ms. Outside its hours nothing is in alarm: one that
 * stands when they end returns at that moment.
 * Deadband and on/off-delay as defined in ANSI/ISA-18.2-2016, clause 3 (from memory).
 */
export interface AlarmCondition {
  readonly test: AlarmTest;
  readonly onDelayMs: number;
  readonly offDelayMs: number;
  /** A delay does not run on over a gap longer than this. */
  readonly maxGapMs: number;
  /** Hours in which it watches; null = always. */
  readonly hours: HoursFilter | null;
  readonly site: { readonly zone: string; readonly calendar: WorkingCalendar };
  readonly reading: Pick<MetricReading, 'kind' | 'rollover' | 'intervalMs'>;
  /** What a baseline or a control chart learnt; null = nothing, such a test then finds nothing. */
  readonly model: AlarmModel | null;
}

/** What the condition remembers from one sample to the next. `since`: when the phase began, ms. */
export interface ConditionState {
  readonly phase: 'normal' | 'pendingOn' | 'active' | 'pendingOff';
  readonly since: number;
  /** Time of the newest sample seen; 0 before the first. */
  readonly seen: number;
  /** Its value. */
  readonly last?: number;
  /** A later moment at which time alone changed the phase (silence, the end of its hours). */
  readonly told?: number;
  readonly memory?: SignalMemory;
}

export const INITIAL_CONDITION: ConditionState = { phase: 'normal', since: 0, seen: 0 };

/** A change of the condition that people are told about. */
export interface ConditionChange {
  readonly kind: 'raise' | 'return';
  readonly t: number;
  readonly value: number;
}

/** True while the alarm stands, waiting to return or not. */
export function isActive({ phase }: Pick<ConditionState, 'phase'>): boolean {
  return phase === 'active' || phase === 'pendingOff';
}

/** Up to when everything has been taken in: what is older is late. */
export function takenUpTo(state: ConditionState): number {
  return Math.max(state.seen, state.told ?? 0);
}

/**
 * The next phase, given how bad a sample is.
 *
 * @param x the signal; NaN changes nothing. @param gap since the sample before was longer than allowed.
 * @returns `change` when raised at the first sample that finds the limit passed for at least the on-delay, or returned likewise.
 */
export function stepPhase(
  { phase, since }: Pick<ConditionState, 'phase' | 'since'>,
  delays: Pick<AlarmCondition, 'onDelayMs' | 'offDelayMs'>,
  threshold: { readonly limit: number; readonly deadband: number },
  t: number,
  x: number,
  gap: boolean,
): { phase: ConditionState['phase']; since: number; change: 'raise' | 'return' | null } {
  if (Number.isNaN(x)) return { phase, since, change: null };
  const active = isActive({ phase });
  const wants = active ? x <= threshold.limit - threshold.deadband : x > threshold.limit;
  const settled = active ? 'active' : 'normal';
  const pending = active ? 'pendingOff' : 'pendingOn';
  if (!wants) return { phase: settled, since: phase === settled ? since : t, change: null };
  const from = phase === pending && !gap ? since : t;
  const delay = active ? delays.offDelayMs : delays.onDelayMs;
  if (t - from < delay) return { phase: pending, since: from, change: null };
  return { phase: active ? 'normal' : 'active', since: t, change: active ? 'return' : 'raise' };
}
