import type { Alarm, Level } from '@vivid-beacon/core';
import type { AlarmMark } from '../components/Lamp';

/** The lamp of an alarm and the mark of its state. */
export function lampOfAlarm(alarm: Pick<Alarm, 'state' | 'level'>): { level: Level; mark?: AlarmMark } {
  switch (alarm.state) {
    case 'unacknowledged':
      return { level: alarm.level, mark: 'notAcknowledged' };
    case 'acknowledged':
      return { level: alarm.level, mark: 'acknowledged' };
    case 'returnedUnacknowledged':
      return { level: 'clear', mark: 'clearAgain' };
    case 'normal':
      return { level: 'clear' };
  }
}
