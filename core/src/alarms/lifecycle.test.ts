import fc from 'fast-check';
import {
  ALARM_STATES,
  isSetAside,
  needsAcknowledgement,
  nextAlarmState,
  type AlarmAction,
  type AlarmState,
} from './lifecycle';

describe('nextAlarmState', () => {
  it('follows the transitions of ISA-18.2 between normal, unacknowledged, acknowledged and returned (from memory)', () => {
    const walk = (...actions: AlarmAction[]): string =>
      actions.reduce<AlarmState>((state, action) => nextAlarmState(state, action), 'normal');
    expect(walk('raise')).toBe('unacknowledged');
    expect(walk('raise', 'acknowledge')).toBe('acknowledged');
    expect(walk('raise', 'acknowledge', 'return')).toBe('normal');
    expect(walk('raise', 'return')).toBe('returnedUnacknowledged');
    expect(walk('raise', 'return', 'acknowledge')).toBe('normal');
    expect(walk('raise', 'return', 'raise')).toBe('unacknowledged');
  });

  it('latches where the rule says so: it stands until it is acknowledged and reset', () => {
    const now = { latching: true, active: false };
    expect(nextAlarmState('unacknowledged', 'return', now)).toBe('latchedUnacknowledged');
    expect(nextAlarmState('acknowledged', 'return', now)).toBe('latchedAcknowledged');
    expect(nextAlarmState('latchedUnacknowledged', 'acknowledge')).toBe('latchedAcknowledged');
    expect(() => nextAlarmState('latchedUnacknowledged', 'reset')).toThrow('it cannot be reset now');
    expect(nextAlarmState('latchedAcknowledged', 'reset')).toBe('normal');
    expect(nextAlarmState('latchedAcknowledged', 'raise')).toBe('unacknowledged');
  });

  it('set aside is raised and returns unheard, and put back is what its condition is', () => {
    const steps = fc.array(fc.constantFrom<AlarmAction>('raise', 'return'), { maxLength: 6 });
    fc.assert(
      fc.property(
        fc.constantFrom<AlarmAction>('shelve', 'takeOut', 'suppress'),
        steps,
        fc.boolean(),
        (aside, actions, active) => {
          const set = nextAlarmState('acknowledged', aside);
          expect(isSetAside(set)).toBe(true);
          expect(needsAcknowledgement(set)).toBe(false);
          const after = actions.reduce<AlarmState>((state, action) => nextAlarmState(state, action), set);
          expect(after).toBe(set);
          expect(nextAlarmState(after, 'putBack', { latching: false, active })).toBe(
            active ? 'unacknowledged' : 'normal',
          );
        },
      ),
    );
    expect(() => nextAlarmState('unacknowledged', 'putBack')).toThrow('it cannot be put back now');
  });

  it('put back while the plant still suppresses it, it stays unheard', () => {
    const now = { latching: false, active: true, suppressed: true };
    expect(nextAlarmState('shelved', 'putBack', now)).toBe('suppressed');
    expect(nextAlarmState('suppressed', 'shelve')).toBe('shelved');
    expect(nextAlarmState('shelved', 'suppress')).toBe('shelved');
    expect(nextAlarmState('suppressed', 'putBack', { ...now, suppressed: false })).toBe('unacknowledged');
  });

  it('refuses to acknowledge twice', () => {
    expect(() => nextAlarmState('acknowledged', 'acknowledge')).toThrow('it cannot be acknowledged now');
    expect(() => nextAlarmState('normal', 'acknowledge')).toThrow('back to normal');
  });

  it('asks a person until it is acknowledged', () => {
    expect(ALARM_STATES.filter(needsAcknowledgement)).toEqual([
      'unacknowledged',
      'returnedUnacknowledged',
      'latchedUnacknowledged',
    ]);
  });
});
