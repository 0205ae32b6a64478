import type { Alarm, Level } from '@vivid-beacon/core';
import type { AlarmMark } from '@vivid-beacon/core/src/drawing/lampScene';

/** The lamp of an alarm and the mark of its state. */
export function lampOfAlarm(alarm: Pick<Alarm, 'state' | 'level' | 'returnedAt'>): {
  level: Level;
  mark?: AlarmMark;
} {
  switch (alarm.state) {
    case 'unacknowledged':
      return { level: alarm.level, mark: 'notAcknowledged' };
    case 'acknowledged':
      return { level: alarm.level, mark: 'acknowledged' };
    case 'returnedUnacknowledged':
    case 'latchedUnacknowledged':
      return { level: 'clear', mark: 'clearAgain' };
    case 'latchedAcknowledged':
      return { level: 'clear', mark: 'acknowledged' };
    case 'shelved':
    case 'suppressed':
    case 'outOfService':
      return { level: alarm.returnedAt === null ? alarm.level : 'clear' };
    case 'normal':
      return { level: 'clear' };
  }
}
