import type { AlarmRule } from '../api/alarms';

type Choices = Omit<
  AlarmRule,
  'id' | 'inForce' | 'inForceFrom' | 'watched' | 'unit' | 'decimals' | 'name' | 'metricId' | 'test'
>;

/** A rule before any choice: no delays, at any time, on one metric, without recipients. */
export const DEFAULT_RULE: Choices = {
  under: null,
  attributes: [],
  over: null,
  caution: null,
  onDelayMs: 0,
  offDelayMs: 0,
  hours: null,
  level: 'breach',
  priority: 'medium',
  suppress: null,
  message: '',
  toDo: '',
  told: [],
  escalation: null,
  latching: false,
};
