import fc from 'fast-check';
import { MINUTE, minutely } from '../testing/makeSeries';
import { sliceSeries } from '../series/series';
import { isActive, stepCondition, INITIAL_CONDITION, type AlarmCondition } from './condition';
import {
  ALARM_STATES,
  isSetAside,
  needsAcknowledgement,
  nextAlarmState,
  type AlarmAction,
  type AlarmState,
} from './lifecycle';
import { rehearse } from './rehearse';
import { runCondition } from './runCondition';

const RULE: AlarmCondition = {
  side: 'above',
  limit: 205,
  deadband: 4,
  onDelayMs: 0,
  offDelayMs: 0,
  maxGapMs: 10 * MINUTE,
};
const kinds = (rule: AlarmCondition, values: number[]): string[] =>
  runCondition(rule, minutely(values)).changes.map(({ kind, t }) => `${kind} ${t / MINUTE}`);

describe('stepCondition', () => {
  it('raises above the limit, not on it, and returns only beyond the deadband', () => {
    expect(kinds(RULE, [200, 205, 206, 203, 201.5, 201])).toEqual(['raise 2', 'return 5']);
  });

  it('does not chatter inside the deadband', () => {
    expect(kinds(RULE, [206, 204, 206, 204, 206])).toEqual(['raise 0']);
  });

  it('waits for the on-delay, and forgets it when the value comes back', () => {
    const delayed = { ...RULE, onDelayMs: 3 * MINUTE };
    expect(kinds(delayed, [206, 206, 204, 206, 206, 206, 206])).toEqual(['raise 6']);
  });

  it('waits for the off-delay', () => {
    expect(kinds({ ...RULE, offDelayMs: 2 * MINUTE }, [206, 200, 206, 200, 200, 200])).toEqual([
      'raise 0',
      'return 5',
    ]);
  });

  it('starts the delay again after a gap nobody measured', () => {
    const delayed = { ...RULE, onDelayMs: 15 * MINUTE };
    const first = stepCondition(delayed, INITIAL_CONDITION, MINUTE, 210).state;
    expect(stepCondition(delayed, first, 30 * MINUTE, 210).change).toBeNull();
  });

  it('watches a lower limit likewise', () => {
    expect(kinds({ ...RULE, side: 'below', limit: 5, deadband: 1 }, [6, 5, 4, 5.5, 6])).toEqual([
      'raise 2',
      'return 4',
    ]);
  });

  it('is not moved by samples of bad quality', () => {
    expect(kinds(RULE, [206, NaN, 206])).toEqual(['raise 0']);
  });

  it('ends the same whether samples come one by one or in batches', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 195, max: 215 }), { maxLength: 60 }),
        fc.integer({ min: 0, max: 60 }),
        (values, cut) => {
          const rule = { ...RULE, onDelayMs: 2 * MINUTE, offDelayMs: MINUTE };
          const series = minutely(values, MINUTE);
          const whole = runCondition(rule, series);
          const first = runCondition(rule, sliceSeries(series, 0, cut * MINUTE));
          const second = runCondition(rule, sliceSeries(series, cut * MINUTE, Infinity), first.state);
          expect(second.state).toEqual(whole.state);
          expect([...first.changes, ...second.changes]).toEqual(whole.changes);
          expect(isActive(whole.state)).toBe(whole.changes.length % 2 === 1);
        },
      ),
    );
  });
});

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
        fc.constantFrom<AlarmAction>('shelve', 'takeOut'),
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

describe('rehearse', () => {
  it('counts how often, how long and for what share a rule would have stood', () => {
    const result = rehearse(
      RULE,
      minutely([200, 210, 210, 200, 210, 200]),
      { start: 0, end: 10 * MINUTE },
      [203, 250],
    );
    expect(result.alarms).toEqual([
      { start: MINUTE, end: 3 * MINUTE },
      { start: 4 * MINUTE, end: 5 * MINUTE },
    ]);
    expect(result).toMatchObject({ longestMs: 2 * MINUTE, share: 0.3 });
    expect(result.curve).toEqual([
      { limit: 203, fires: 1 },
      { limit: 250, fires: 0 },
    ]);
  });

  it('lets an alarm that has not returned stand to the end', () => {
    expect(rehearse(RULE, minutely([210]), { start: 0, end: 5 * MINUTE }).longestMs).toBe(5 * MINUTE);
  });
});
