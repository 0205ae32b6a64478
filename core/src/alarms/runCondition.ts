import type { Series } from '../series/series';
import {
  INITIAL_CONDITION,
  stepCondition,
  type AlarmCondition,
  type ConditionChange,
  type ConditionState,
} from './condition';

/** Runs a condition over a series from a given state. */
export function runCondition(
  condition: AlarmCondition,
  series: Series,
  from: ConditionState = INITIAL_CONDITION,
): { readonly state: ConditionState; readonly changes: readonly ConditionChange[] } {
  const changes: ConditionChange[] = [];
  let state = from;
  for (let i = 0; i < series.t.length; i++) {
    const step = stepCondition(condition, state, series.t[i], series.v[i]);
    state = step.state;
    if (step.change) changes.push(step.change);
  }
  return { state, changes };
}
