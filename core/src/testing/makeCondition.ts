import type { AlarmTest } from '../alarms/alarmTest';
import type { AlarmCondition } from '../alarms/condition';
import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import { LEVEL, MINUTE } from './makeSeries';

/** A condition on a one-minute level in London, always in force and without delay by default. */
export function makeCondition(test: AlarmTest, parts: Partial<AlarmCondition> = {}): AlarmCondition {
  return {
    test,
    onDelayMs: 0,
    offDelayMs: 0,
    maxGapMs: 10 * MINUTE,
    hours: null,
    site: { zone: 'Europe/London', calendar: DEFAULT_CALENDAR },
    reading: LEVEL,
    model: null,
    ...parts,
  };
}

export const above = (limit: number, deadband = 0): AlarmTest => ({
  kind: 'limit',
  side: 'above',
  limit,
  deadband,
});
