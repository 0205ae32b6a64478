/**
 * When a metric is in alarm: above or below a limit, held for the on-delay; back to normal once it has
 * been on the good side of limit ∓ deadband for the off-delay. Delays in ms; limit and deadband in the
 * metric's unit. A value exactly on the limit is not in alarm.
 * Deadband and on/off-delay as defined in ANSI/ISA-18.2-2016, clause 3 (from memory).
 */
export interface AlarmCondition {
  readonly side: 'above' | 'below';
  readonly limit: number;
  readonly deadband: number;
  readonly onDelayMs: number;
  readonly offDelayMs: number;
  /** A delay does not run on over a gap longer than this. */
  readonly maxGapMs: number;
}

/** What the condition remembers from one sample to the next. `since`: when the phase began, ms. */
export interface ConditionState {
  readonly phase: 'normal' | 'pendingOn' | 'active' | 'pendingOff';
  readonly since: number;
  /** Time of the newest sample seen; 0 before the first. */
  readonly seen: number;
}

export const INITIAL_CONDITION: ConditionState = { phase: 'normal', since: 0, seen: 0 };

/** A change of the condition that people are told about. */
export interface ConditionChange {
  readonly kind: 'raise' | 'return';
  readonly t: number;
  readonly value: number;
}

/** True while the alarm stands, waiting to return or not. */
export function isActive(state: ConditionState): boolean {
  return state.phase === 'active' || state.phase === 'pendingOff';
}

/**
 * Takes one sample. Live evaluation and Rehearsal both go through here.
 *
 * @param t must be later than `state.seen`. @param value NaN (bad quality) changes nothing.
 * @returns the next state, and the change if there is one: raised at the first sample that finds the
 *          limit passed for at least the on-delay, returned likewise.
 */
export function stepCondition(
  condition: AlarmCondition,
  state: ConditionState,
  t: number,
  value: number,
): { readonly state: ConditionState; readonly change: ConditionChange | null } {
  if (Number.isNaN(value)) return { state, change: null };
  const gap = state.seen > 0 && t - state.seen > condition.maxGapMs;
  const over = condition.side === 'above' ? value > condition.limit : value < condition.limit;
  const back =
    condition.side === 'above'
      ? value <= condition.limit - condition.deadband
      : value >= condition.limit + condition.deadband;
  const active = isActive(state);
  const wants = active ? back : over;
  const settled = active ? 'active' : 'normal';
  const pending = active ? 'pendingOff' : 'pendingOn';
  const delay = active ? condition.offDelayMs : condition.onDelayMs;

  if (!wants) {
    const since = state.phase === settled ? state.since : t;
    return { state: { phase: settled, since, seen: t }, change: null };
  }
  const since = state.phase === pending && !gap ? state.since : t;
  if (t - since < delay) return { state: { phase: pending, since, seen: t }, change: null };
  return {
    state: { phase: active ? 'normal' : 'active', since: t, seen: t },
    change: { kind: active ? 'return' : 'raise', t, value },
  };
}
