import { BeaconError } from '../errors';

/**
 * The states of one alarm, after the alarm state transition diagram of ANSI/ISA-18.2-2016 and
 * IEC 62682:2014 (from memory: states A normal, B unacknowledged, C acknowledged, D returned to normal
 * unacknowledged). Latching, shelving, suppression by design and out of service are not in this version.
 */
export const ALARM_STATES = ['unacknowledged', 'acknowledged', 'returnedUnacknowledged', 'normal'] as const;
export type AlarmState = (typeof ALARM_STATES)[number];

export type AlarmAction = 'raise' | 'return' | 'acknowledge';

export const ALARM_STATE_WORDS: Readonly<Record<AlarmState, string>> = {
  unacknowledged: 'not acknowledged',
  acknowledged: 'acknowledged',
  returnedUnacknowledged: 'clear again, not acknowledged',
  normal: 'back to normal',
};

const NEXT: Readonly<Record<AlarmState, Partial<Record<AlarmAction, AlarmState>>>> = {
  normal: { raise: 'unacknowledged' },
  unacknowledged: { acknowledge: 'acknowledged', return: 'returnedUnacknowledged' },
  acknowledged: { return: 'normal' },
  returnedUnacknowledged: { acknowledge: 'normal', raise: 'unacknowledged' },
};

/** @throws {BeaconError} WRONG_STATE when the action is not possible in this state. */
export function nextAlarmState(state: AlarmState, action: AlarmAction): AlarmState {
  const next = NEXT[state][action];
  if (next === undefined) {
    throw new BeaconError(
      'WRONG_STATE',
      `This alarm is ${ALARM_STATE_WORDS[state]}; it cannot be ${action === 'acknowledge' ? 'acknowledged' : `${action}ed`} now.`,
    );
  }
  return next;
}

/** Does a person still have to see it? */
export function needsAcknowledgement(state: AlarmState): boolean {
  return state === 'unacknowledged' || state === 'returnedUnacknowledged';
}
