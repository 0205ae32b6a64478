import type { HoursFilter } from '../time/hoursFilter';
import type { WorkingCalendar } from '../schemas/calendar';
import type { AlarmTest } from './alarmTest';
import type { SignalContext } from './tests/testKind';

/**
 * A metric is in alarm once the test has been tripped for the on-delay, and back to normal once the good side
 * of limit ∓ deadband has held for the off-delay. Delays in ms. Outside its hours nothing is in alarm: an
 * active alarm returns to normal when they end, and a value that holds on the bad side when they open counts from
 * that moment. A delay does not run on over a gap longer than `maxGapMs`.
 * Deadband and on/off-delay as defined in ANSI/ISA-18.2-2016, clause 3 (from memory).
 */
export interface AlarmCondition extends SignalContext {
  readonly test: AlarmTest;
  readonly onDelayMs: number;
  readonly offDelayMs: number;
  /** Hours in which the rule is evaluated; null = always. */
  readonly hours: HoursFilter | null;
  readonly site: { readonly zone: string; readonly calendar: WorkingCalendar };
}

/** State carried from one sample to the next. `since`: when the phase began, ms. */
export interface ConditionState {
  readonly phase: 'normal' | 'pendingOn' | 'active' | 'pendingOff';
  readonly since: number;
  /** Time of the newest sample seen; 0 before the first. */
  readonly seen: number;
  /** The value shown with the state. */
  readonly last?: number;
  /** Of a condition with hours: the signal of the newest sample, which still holds when they open. */
  readonly held?: number;
  /** The latest moment at which time alone changed the phase (silence, hours that open or end). */
  readonly told?: number;
  /** Earliest time (ms) at which time alone may change the phase; absent if only samples can. */
  readonly wakeAt?: number;
  /** The test's own state between samples, as plain data. */
  readonly memory?: object;
}

export const INITIAL_CONDITION: ConditionState = { phase: 'normal', since: 0, seen: 0 };

/** A change of phase that raises or returns an alarm. */
export interface ConditionChange {
  readonly kind: 'raise' | 'return';
  readonly t: number;
  readonly value: number;
}

/** True while the alarm is active, including during the off-delay. */
export function isActive({ phase }: Pick<ConditionState, 'phase'>): boolean {
  return phase === 'active' || phase === 'pendingOff';
}

/** Time up to which samples have been evaluated; older samples are late. */
export function takenUpTo(state: ConditionState): number {
  return Math.max(state.seen, state.told ?? 0);
}
