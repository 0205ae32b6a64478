import type { MetricReading } from '../domain/metric';
import type { HoursFilter } from '../time/hoursFilter';
import type { WorkingCalendar } from '../schemas/calendar';
import type { AlarmModel } from './alarmModel';
import type { AlarmTest } from './alarmTest';
import type { SignalMemory } from './signalMemory';

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
  /** The value that is shown with it. */
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
