import type { AlarmRule } from '../api/alarms';

type Choices = Omit<AlarmRule, 'id' | 'inForce' | 'inForceFrom' | 'watches' | 'name' | 'metricId' | 'test'>;

/** What a rule is without any choices made: at once, always, on one metric, nobody told. */
export const PLAIN_RULE: Choices = {
  under: null,
  attributes: [],
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
