import { BeaconError } from '../errors';

/**
 * The states of one alarm, after the alarm state transition diagram of ANSI/ISA-18.2-2016 and
 * IEC 62682:2014 (from memory: A normal, B unacknowledged, C acknowledged, D returned to normal
 * unacknowledged, E latched unacknowledged, F latched acknowledged, G shelved, H suppressed by design,
 * I out of service).
 */
export const ALARM_STATES = [
  'unacknowledged',
  'acknowledged',
  'returnedUnacknowledged',
  'latchedUnacknowledged',
  'latchedAcknowledged',
  'shelved',
  'suppressed',
  'outOfService',
  'normal',
] as const;
export type AlarmState = (typeof ALARM_STATES)[number];

/** Ways to set a rule aside: its alarms are recorded and nobody is notified. */
export const SET_ASIDE = ['shelved', 'outOfService'] as const;
export type SetAside = (typeof SET_ASIDE)[number];

export type AlarmAction =
  'raise' | 'return' | 'acknowledge' | 'reset' | 'shelve' | 'takeOut' | 'suppress' | 'putBack' | 'retire';

export const ALARM_STATE_WORDS: Readonly<Record<AlarmState, string>> = {
  unacknowledged: 'not acknowledged',
  acknowledged: 'acknowledged',
  returnedUnacknowledged: 'clear again, not acknowledged',
  latchedUnacknowledged: 'clear again, latched, not acknowledged',
  latchedAcknowledged: 'clear again, latched until it is reset',
  shelved: 'shelved',
  suppressed: 'suppressed by design',
  outOfService: 'out of service',
  normal: 'back to normal',
};

const ACTION_WORDS: Readonly<Record<AlarmAction, string>> = {
  raise: 'raised',
  return: 'returned',
  acknowledge: 'acknowledged',
  reset: 'reset',
  shelve: 'shelved',
  takeOut: 'taken out of service',
  suppress: 'suppressed',
  putBack: 'put back',
  retire: 'ended with its rule',
};

const ASIDE = { shelve: 'shelved', takeOut: 'outOfService', suppress: 'suppressed' } as const;

/** What the next state depends on besides the action. */
export interface AlarmCircumstances {
  /** Whether the alarm latches: it stays active until a person resets it. */
  readonly latching: boolean;
  /** Whether the condition is met now; decides the state of a reinstated alarm. */
  readonly active: boolean;
  /** Whether the state of the plant suppresses it by design now. */
  readonly suppressed?: boolean;
}

const UNHEARD = {
  retire: 'normal',
  putBack: ({ active, suppressed }: AlarmCircumstances): AlarmState =>
    suppressed ? 'suppressed' : active ? 'unacknowledged' : 'normal',
} as const;

const NEXT: Readonly<
  Record<AlarmState, Partial<Record<AlarmAction, AlarmState | ((now: AlarmCircumstances) => AlarmState)>>>
> = {
  normal: { raise: 'unacknowledged' },
  unacknowledged: {
    ...ASIDE,
    acknowledge: 'acknowledged',
    retire: 'returnedUnacknowledged',
    return: ({ latching }) => (latching ? 'latchedUnacknowledged' : 'returnedUnacknowledged'),
  },
  acknowledged: {
    ...ASIDE,
    retire: 'normal',
    return: ({ latching }) => (latching ? 'latchedAcknowledged' : 'normal'),
  },
  returnedUnacknowledged: {
    ...ASIDE,
    acknowledge: 'normal',
    raise: 'unacknowledged',
    retire: 'returnedUnacknowledged',
  },
  latchedUnacknowledged: {
    ...ASIDE,
    acknowledge: 'latchedAcknowledged',
    raise: 'unacknowledged',
    retire: 'returnedUnacknowledged',
  },
  latchedAcknowledged: { ...ASIDE, reset: 'normal', raise: 'unacknowledged', retire: 'normal' },
  // While set aside it is raised and returns without notices; reinstated, it follows its condition.
  shelved: { ...UNHEARD, ...ASIDE, raise: 'shelved', return: 'shelved', suppress: 'shelved' },
  suppressed: { ...UNHEARD, ...ASIDE, raise: 'suppressed', return: 'suppressed' },
  outOfService: {
    ...UNHEARD,
    takeOut: 'outOfService',
    suppress: 'outOfService',
    raise: 'outOfService',
    return: 'outOfService',
  },
};

/** @throws {BeaconError} WRONG_STATE when the action is not possible in this state. */
export function nextAlarmState(
  state: AlarmState,
  action: AlarmAction,
  now: AlarmCircumstances = { latching: false, active: false },
): AlarmState {
  const next = NEXT[state][action];
  if (next === undefined) {
    throw new BeaconError(
      'WRONG_STATE',
      `This alarm is ${ALARM_STATE_WORDS[state]}; it cannot be ${ACTION_WORDS[action]} now.`,
    );
  }
  return typeof next === 'function' ? next(now) : next;
}

/** Whether it still has to be acknowledged. */
export function needsAcknowledgement(state: AlarmState): boolean {
  return NEXT[state].acknowledge !== undefined;
}

/** The states that still have to be acknowledged. */
export const UNACKNOWLEDGED_STATES: readonly AlarmState[] = ALARM_STATES.filter(needsAcknowledgement);

/** Whether a person has to act: acknowledge the alarm or reset it. */
export function waitsForPerson(state: AlarmState): boolean {
  return needsAcknowledgement(state) || state === 'latchedAcknowledged';
}

/** Whether it is recorded without notifying anybody. */
export function isSetAside(state: AlarmState): state is SetAside | 'suppressed' {
  return state === 'shelved' || state === 'suppressed' || state === 'outOfService';
}
