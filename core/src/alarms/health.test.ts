import fc from 'fast-check';
import { DAY_MS, MINUTE_MS } from '../time/lengths';
import { alarmHealth, checkHealth, type Annunciation } from './health';

const DAY = { start: 0, end: DAY_MS };
const alarm = (minute: number, part: Partial<Annunciation> = {}): Annunciation => ({
  ruleId: '1',
  priority: 'low',
  raisedAt: minute * MINUTE_MS,
  returnedAt: (minute + 5) * MINUTE_MS,
  acknowledgedAt: null,
  ...part,
});
const many = (count: number, minute: number): Annunciation[] =>
  Array.from({ length: count }, (_, i) => alarm(minute, { ruleId: String(i) }));
const levelOf = (alarms: readonly Annunciation[], key: string, operators = 1): string =>
  checkHealth(alarmHealth(alarms, DAY, operators), 500).find((each) => each.key === key)!.level;

describe('alarm health', () => {
  // The rates of the published table: 144 a day is 1 in ten minutes; 288 a day 2 in ten minutes.
  it.each([
    [144, 1, 'clear', 'clear'],
    [288, 2, 'caution', 'caution'],
    [432, 3, 'breach', 'breach'],
  ])('%i alarms a day are %i in ten minutes: %s', (count, rate, ofRate, ofDay) => {
    const alarms = Array.from({ length: count }, (_, i) => alarm((i * 1440) / count, { ruleId: String(i) }));
    expect(alarmHealth(alarms, DAY, 1).perTenMinutes).toBeCloseTo(rate, 9);
    expect(levelOf(alarms, 'perTenMinutes')).toBe(ofRate);
    expect(levelOf(alarms, 'perDay')).toBe(ofDay);
    // Two people answer twice as many.
    expect(alarmHealth(alarms, DAY, 2).perTenMinutes).toBeCloseTo(rate / 2, 9);
  });

  it('begins a flood with more than ten in ten minutes and ends it with fewer than five', () => {
    const flood = [...many(10, 0), ...many(11, 10), ...many(6, 20), ...many(5, 30), ...many(4, 40)];
    const health = alarmHealth(flood, DAY, 1);
    expect(health.floods).toEqual([{ start: 10 * MINUTE_MS, end: 40 * MINUTE_MS }]);
    expect(health.floodShare).toBeCloseTo(30 / 1440, 12);
    expect(health.busyShare).toBeCloseTo(1 / 144, 12);
    expect(health.peak).toEqual({ count: 11, at: 10 * MINUTE_MS });
    expect(alarmHealth(many(11, 1435), DAY, 1).floods).toEqual([{ start: 1430 * MINUTE_MS, end: DAY_MS }]);
    expect(alarmHealth(flood, DAY, 2).floods).toEqual([]);
  });

  it('tells chattering, fleeting and stale alarms apart', () => {
    const second = 1000;
    const chatter = [0, 20, 59].map((s) =>
      alarm(0, { ruleId: '7', raisedAt: s * second, returnedAt: s * second + 5 }),
    );
    const health = alarmHealth(chatter, DAY, 1);
    expect(health.chattering).toEqual(['7']);
    expect(health.fleeting).toBe(3);
    const apart = [0, 31, 62].map((s) => alarm(0, { raisedAt: s * second }));
    expect(alarmHealth(apart, DAY, 1).chattering).toEqual([]);
    const two = { start: 0, end: 2 * DAY_MS };
    const old = [
      alarm(0, { returnedAt: null }),
      alarm(1, { returnedAt: DAY_MS * 1.5 }),
      alarm(1441, { returnedAt: null }),
    ];
    expect(alarmHealth(old, two, 1).stale).toBe(1);
    // Raised exactly a day before the end: not more than a day yet.
    expect(alarmHealth([alarm(1440, { returnedAt: null })], two, 1).stale).toBe(0);
    expect(alarmHealth([alarm(1439, { returnedAt: null })], two, 1).stale).toBe(1);
    // Acknowledged before it returned to normal: somebody had seen it.
    expect(alarmHealth([alarm(0, { returnedAt: 50_000, acknowledgedAt: 20_000 })], DAY, 1).fleeting).toBe(0);
  });

  it('tells how long people took, and who was never answered', () => {
    const waits = [1, 2, 3, 4, 100].map((minutes) =>
      alarm(10, { acknowledgedAt: (10 + minutes) * MINUTE_MS }),
    );
    const health = alarmHealth([...waits, alarm(20)], DAY, 1);
    expect(health.toAcknowledge!.median).toBe(3 * MINUTE_MS);
    expect(health.neverAcknowledged).toBe(1);
    expect(alarmHealth([], DAY, 1)).toMatchObject({
      count: 0,
      toAcknowledge: null,
      peak: { count: 0, at: null },
    });
  });

  it('tells the shares by priority from 20 alarms on: 5 % high and 15 % medium are as they should be', () => {
    const of = (high: number, medium: number, low: number): Annunciation[] => [
      ...Array.from({ length: high }, (_, i) => alarm(i * 30, { priority: 'high' })),
      ...Array.from({ length: medium }, (_, i) => alarm(i * 30, { priority: 'medium' })),
      ...Array.from({ length: low }, (_, i) => alarm(i * 30)),
    ];
    expect(levelOf(of(1, 3, 16), 'highShare')).toBe('clear');
    expect(levelOf(of(1, 3, 16), 'mediumShare')).toBe('clear');
    expect(levelOf(of(2, 3, 15), 'highShare')).toBe('caution');
    expect(levelOf(of(10, 8, 2), 'highShare')).toBe('breach');
    const few = checkHealth(alarmHealth(of(5, 0, 0), DAY, 1), 500);
    expect(few.some(({ key }) => key === 'highShare')).toBe(false);
  });

  it('shares add up, floods lie apart inside the window, and order does not matter', () => {
    const any = fc.record({
      ruleId: fc.constantFrom('1', '2', '3', '4'),
      priority: fc.constantFrom('high' as const, 'medium' as const, 'low' as const),
      raisedAt: fc.integer({ min: 0, max: DAY_MS - 1 }),
      returnedAt: fc.constant(null),
      acknowledgedAt: fc.constant(null),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 200 }), fc.integer({ min: 1, max: 5 }), (alarms, operators) => {
        const health = alarmHealth(alarms, DAY, operators);
        if (alarms.length > 0) expect(health.topTenShare).toBeCloseTo(1, 9);
        expect(health.topTen.reduce((sum, { count }) => sum + count, 0)).toBe(alarms.length);
        health.floods.forEach(({ start, end }, i) => {
          expect(start).toBeGreaterThanOrEqual(i === 0 ? 0 : health.floods[i - 1].end);
          expect(end).toBeGreaterThan(start);
          expect(end).toBeLessThanOrEqual(DAY_MS);
        });
        const { chattering, ...rest } = alarmHealth([...alarms].reverse(), DAY, operators);
        const { chattering: before, ...same } = health;
        expect(rest).toEqual(same);
        expect([...chattering].sort()).toEqual([...before].sort());
      }),
    );
  });

  it('says nothing of the ten most frequent where there are few rules, and refuses nonsense', () => {
    const keys = checkHealth(alarmHealth([alarm(0)], DAY, 1), 12).map(({ key }) => key);
    expect(keys).not.toContain('topTenShare');
    expect(levelOf([alarm(0)], 'topTenShare')).toBe('breach');
    expect(() => alarmHealth([], { start: 1, end: 1 }, 1)).toThrow('window');
    expect(() => alarmHealth([], DAY, 0)).toThrow('operator');
  });
});
