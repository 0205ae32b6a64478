import fc from 'fast-check';
import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import type { Flag } from '../domain/flags';
import type { Alarm } from '../api/alarms';
import type { Metric } from '../api/metrics';
import type { AlarmCount, Watch } from '../api/watch';
import { indicatorTotal, NO_LEVELS, openFlags, plantLevels, standingCounts } from './counts';
import { handoverShifts } from './handoverShifts';
import { keyOf, needsOf } from './needs';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const NOW = Date.UTC(2026, 10, 19, 12);

const alarm = (id: string, part: Partial<Alarm> = {}): Alarm =>
  ({
    id,
    plantId: '1',
    state: 'unacknowledged',
    level: 'breach',
    priority: 'medium',
    raisedAt: NOW - 10 * MINUTE,
    returnedAt: null,
    escalatedAt: null,
    ...part,
  }) as Alarm;
const flag = (id: string, part: Partial<Flag> = {}): Flag =>
  ({ id, plantId: '1', priority: 'normal', dueAt: NOW - HOUR, to: { name: 'Dele Marsh' }, ...part }) as Flag;
const feed = (id: string, quietMs: number): Metric =>
  ({ id, plantId: '1', health: { state: 'silent', quietMs } }) as unknown as Metric;
const watch = (part: Partial<Watch>): Watch => ({
  now: NOW,
  plants: [],
  alarms: [],
  alarmCounts: [],
  flags: [],
  flagCounts: {},
  indicators: [],
  indicatorCounts: {},
  silent: { feeds: [], count: {} },
  rulesOn: {},
  ...part,
});
const order = (part: Partial<Watch>): string[] => needsOf(watch(part)).map(keyOf);

describe('what needs a person now', () => {
  it('is ordered by consequence before time', () => {
    expect(
      order({
        alarms: [
          alarm('1', { priority: 'low', raisedAt: NOW - 20 * HOUR, escalatedAt: NOW }),
          alarm('2', { priority: 'high', level: 'caution', raisedAt: NOW - MINUTE, returnedAt: NOW }),
          alarm('3', { level: 'caution', raisedAt: NOW - 5 * HOUR }),
          alarm('4', { raisedAt: NOW - MINUTE }),
        ],
        flags: [flag('7', { priority: 'high' }), flag('8')],
      }),
    ).toEqual(['alarm 2', 'flag 7', 'alarm 4', 'alarm 3', 'alarm 1', 'flag 8']);
  });

  it('has the one in front that others were told of, then the one that still stands, then the older one', () => {
    const older = alarm('1', { raisedAt: NOW - 3 * HOUR });
    const newer = alarm('2', { raisedAt: NOW - HOUR });
    expect(order({ alarms: [newer, older] })).toEqual(['alarm 1', 'alarm 2']);
    expect(order({ alarms: [older, { ...newer, escalatedAt: NOW }] })).toEqual(['alarm 2', 'alarm 1']);
    expect(order({ alarms: [{ ...older, returnedAt: NOW }, newer] })).toEqual(['alarm 2', 'alarm 1']);
  });

  it('leaves out what nobody has to act on: acknowledged, shelved, suppressed, not due, not watched', () => {
    expect(
      order({
        alarms: [
          alarm('1', { state: 'acknowledged' }),
          alarm('2', { state: 'shelved' }),
          alarm('3', { state: 'suppressed' }),
          alarm('4', { state: 'latchedAcknowledged', returnedAt: NOW }),
        ],
        flags: [flag('5', { dueAt: NOW + 1 })],
        silent: { feeds: [feed('6', HOUR), feed('7', HOUR)], count: {} },
        rulesOn: { '7': 2 },
      }),
    ).toEqual(['feed 7', 'alarm 4']);
  });

  it('says why each is there', () => {
    const why = (part: Partial<Watch>): string => needsOf(watch(part))[0].why.join(', ').replace(/\s/g, ' ');
    expect(why({ alarms: [alarm('1', { priority: 'high' })] })).toBe(
      'High priority, Breach for 10 min, not acknowledged',
    );
    expect(why({ alarms: [alarm('1', { escalatedAt: NOW })] })).toContain('others were told');
    expect(why({ flags: [flag('1')] })).toBe('1 h late, with Dele Marsh');
    expect(why({ silent: { feeds: [feed('1', 2 * HOUR)], count: {} }, rulesOn: { '1': 1 } })).toBe(
      'Silent for 2 h, an alarm rule sees nothing',
    );
  });

  it('does not depend on the order in which things come, and a priority is never outweighed', () => {
    const any = fc.record({
      priority: fc.constantFrom('high' as const, 'medium' as const, 'low' as const),
      level: fc.constantFrom('breach' as const, 'caution' as const),
      raisedAt: fc.integer({ min: NOW - 40 * HOUR, max: NOW }),
      escalatedAt: fc.constantFrom(null, NOW),
    });
    const rank = { high: 0, medium: 1, low: 2 };
    fc.assert(
      fc.property(fc.array(any, { maxLength: 20 }), (parts) => {
        const alarms = parts.map((part, i) => alarm(String(i + 1), part));
        const straight = needsOf(watch({ alarms }));
        expect(order({ alarms: [...alarms].reverse() })).toEqual(straight.map(keyOf));
        const ranks = straight.map((need) => (need.kind === 'alarm' ? rank[need.alarm.priority] : 9));
        expect(ranks).toEqual([...ranks].sort((a, b) => a - b));
      }),
    );
  });
});

describe('shifts to hand over', () => {
  const calendar = {
    ...DEFAULT_CALENDAR,
    shifts: [
      { name: 'Early', days: [1, 2, 3, 4, 5], from: '06:00', to: '14:00' },
      { name: 'Late', days: [1, 2, 3, 4, 5], from: '14:00', to: '22:00' },
    ],
  };

  it('begin with the one under way, then go back', () => {
    const shifts = handoverShifts(calendar, NOW, 'Europe/London');
    expect(shifts.map(({ name }) => name).slice(0, 3)).toEqual(['Early', 'Late', 'Early']);
    expect(shifts[0].start).toBe(Date.UTC(2026, 10, 19, 6));
  });

  it('between shifts begin with the one that ended last', () => {
    const night = Date.UTC(2026, 10, 19, 23);
    expect(handoverShifts(calendar, night, 'Europe/London')[0]).toMatchObject({
      name: 'Late',
      end: Date.UTC(2026, 10, 19, 22),
    });
  });

  it('are the thirds of the day where there is no calendar', () => {
    const shifts = handoverShifts(DEFAULT_CALENDAR, NOW, 'UTC');
    expect(shifts[0]).toEqual({
      name: '08:00 to 16:00',
      start: Date.UTC(2026, 10, 19, 8),
      end: Date.UTC(2026, 10, 19, 16),
    });
    expect(shifts[1].end).toBe(shifts[0].start);
  });
});

describe('what is counted of very many', () => {
  const count = (part: Partial<AlarmCount>): AlarmCount => ({
    plantId: '1',
    state: 'unacknowledged',
    level: 'breach',
    stands: true,
    n: 1,
    ...part,
  });
  const counts = [
    count({ n: 700 }),
    count({ state: 'latchedAcknowledged', stands: false, n: 2 }),
    count({ state: 'acknowledged', level: 'caution', n: 30 }),
    count({ state: 'shelved', n: 4 }),
    count({ state: 'returnedUnacknowledged', stands: false, n: 5 }),
    count({ plantId: '2', state: 'outOfService', n: 6 }),
  ];

  it('is what waits for a person, what is known, and what is set aside', () => {
    expect(standingCounts(counts, '1')).toEqual({ waiting: 707, acknowledged: 30, setAside: 4 });
    expect(standingCounts(counts, null)).toEqual({ waiting: 707, acknowledged: 30, setAside: 10 });
    expect(standingCounts(counts, '3')).toEqual({ waiting: 0, acknowledged: 0, setAside: 0 });
  });

  it('lights a plant by what stands and is not set aside, together with its indicators', () => {
    const indicatorCounts = { '1': { clear: 9, caution: 1, breach: 0, nodata: 2 } };
    expect(plantLevels({ alarmCounts: counts, indicatorCounts }, '1')).toEqual({
      clear: 9,
      caution: 31,
      breach: 700,
      nodata: 2,
    });
    expect(plantLevels({ alarmCounts: counts, indicatorCounts }, '2')).toEqual(NO_LEVELS);
  });

  it('adds plants up', () => {
    const flags = { '1': { late: 2, later: 3 }, '2': { late: 0, later: 5 } };
    expect([openFlags(flags, null), openFlags(flags, '2'), openFlags(flags, '9')]).toEqual([
      { late: 2, later: 8 },
      { late: 0, later: 5 },
      { late: 0, later: 0 },
    ]);
    const levels = { '1': { clear: 9, caution: 1, breach: 0, nodata: 2 }, '2': { ...NO_LEVELS, breach: 3 } };
    expect([indicatorTotal(levels, null), indicatorTotal(levels, '2'), indicatorTotal(levels, '9')]).toEqual([
      15, 3, 0,
    ]);
  });
});
