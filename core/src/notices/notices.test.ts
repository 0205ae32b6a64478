import fc from 'fast-check';
import type { Alarm } from '../api/alarms';
import { noticeWishSchema } from '../schemas/notices';
import { FLOOD_COUNT, bundledByFlood, type WaitingNotice } from './flood';
import { breachNotice, digestNotice, escalationNotice, fillMessage, returnNotice } from './message';
import { sendAt } from './quietHours';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const ZONE = 'Europe/London';

describe('quiet hours', () => {
  const wish = { quiet: { from: '22:00', to: '06:00' }, zone: ZONE };

  it('hold what is not urgent until they end, over midnight and on the local clock', () => {
    // Summer: London is an hour ahead of UTC.
    expect(sendAt(Date.UTC(2026, 5, 1, 22), wish, false)).toBe(Date.UTC(2026, 5, 2, 5));
    expect(sendAt(Date.UTC(2026, 5, 2, 2), wish, false)).toBe(Date.UTC(2026, 5, 2, 5));
    expect(sendAt(Date.UTC(2026, 5, 2, 5), wish, false)).toBe(Date.UTC(2026, 5, 2, 5));
    expect(sendAt(Date.UTC(2026, 5, 1, 20, 59), wish, false)).toBe(Date.UTC(2026, 5, 1, 20, 59));
  });

  it('let what is urgent through, and everything where there are none', () => {
    const night = Date.UTC(2026, 5, 2, 2);
    expect(sendAt(night, wish, true)).toBe(night);
    expect(sendAt(night, { ...wish, quiet: null }, false)).toBe(night);
  });

  it('are over for a moment also where the clock leaps over the only hour between them', () => {
    const quiet = { from: '02:00', to: '01:00' };
    // London, 29 March 2026: at 01:00 it is 02:00.
    const leap = Date.UTC(2026, 2, 29, 1);
    expect(sendAt(Date.UTC(2026, 2, 28, 2), { quiet, zone: ZONE }, false)).toBe(leap);
    expect(sendAt(leap, { quiet, zone: ZONE }, false)).toBe(leap);
    expect(sendAt(leap + 1, { quiet, zone: ZONE }, false)).toBe(Date.UTC(2026, 2, 30, 0));
  });

  it('end at most a day later, and never before now', () => {
    const clock = fc
      .tuple(fc.integer({ min: 0, max: 23 }), fc.integer({ min: 0, max: 59 }))
      .map(([h, m]) => `${String(h).padStart(2, '0')}:${String(m).padStart(2, '0')}`);
    fc.assert(
      fc.property(
        fc.integer({ min: Date.UTC(2026, 0, 1), max: Date.UTC(2027, 0, 1) }),
        clock,
        clock,
        (now, from, to) => {
          const at = sendAt(now, { quiet: { from, to }, zone: ZONE }, false);
          expect(at).toBeGreaterThanOrEqual(now);
          expect(at - now).toBeLessThanOrEqual(25 * HOUR);
          // After quiet hours the next notice does not wait.
          expect(sendAt(at, { quiet: { from, to }, zone: ZONE }, false)).toBe(at);
        },
      ),
    );
  });
});

const alarm = {
  ruleName: 'Ironer 2 hot',
  test: { kind: 'limit', side: 'above', limit: 205, deadband: 4 },
  priority: 'high',
  toDo: 'Slow the feed.',
  metricName: 'Bed temperature',
  unit: '°C',
  decimals: 0,
  assetName: 'Ironer 2',
  plantName: 'Quayside',
  zone: ZONE,
  raisedAt: Date.UTC(2026, 10, 19, 12, 4),
  raisedValue: 212,
  returnedAt: null,
  latestValue: 212,
} as unknown as Alarm;

describe('what a notice says', () => {
  it('is the words of the rule with its parts filled in; what is no part stays', () => {
    expect(fillMessage('{asset} at {value}, {oven}', alarm).replace(/\s/g, ' ')).toBe(
      'Ironer 2 at 212 °C, {oven}',
    );
  });

  it('names place, finding, time, what to do and priority where the rule has no words', () => {
    const { subject, body } = breachNotice(alarm, { message: '' });
    expect(subject).toBe('Ironer 2 hot');
    for (const part of [
      'Ironer 2, Quayside',
      'above 205',
      '212',
      '12:04',
      'Slow the feed.',
      'High priority',
    ]) {
      expect(body.replace(/\s/g, ' ')).toContain(part);
    }
    expect(body).not.toContain('Back to normal');
    const over = { ...alarm, returnedAt: alarm.raisedAt + 5 * MINUTE };
    expect(breachNotice(over, { message: '' }).body).toContain('Back to normal at');
    expect(returnNotice(over).body.replace(/\s/g, ' ')).toContain('after 5 min');
    expect(escalationNotice(alarm, 15 * MINUTE).subject.replace(/\s/g, ' ')).toContain('for 15 min');
  });

  it('of several is how often each, the most frequent first, and does not grow without end', () => {
    const { subject, body } = digestNotice(['A', 'B', 'B'], alarm.raisedAt, ZONE);
    expect(subject).toContain('3 notices since');
    expect(body).toBe('B (2 times)\nA');
    const many = digestNotice(
      Array.from({ length: 60 }, (_, i) => `Rule ${i}`),
      alarm.raisedAt,
      ZONE,
    );
    expect(many.body.split('\n')).toHaveLength(21);
    expect(many.body).toContain('and 40 more');
  });
});

describe('gathering', () => {
  const waiting = (count: number, part: Partial<WaitingNotice> = {}): WaitingNotice[] =>
    Array.from({ length: count }, (_, i) => ({ id: String(i), urgent: false, held: false, ...part }));

  it('leaves a few as they are, and gathers a flood but for what is urgent', () => {
    expect(bundledByFlood(waiting(FLOOD_COUNT), 0)).toEqual([]);
    expect(bundledByFlood(waiting(FLOOD_COUNT + 1), 0)).toHaveLength(FLOOD_COUNT + 1);
    expect(bundledByFlood(waiting(2), FLOOD_COUNT)).toHaveLength(2);
    expect(bundledByFlood(waiting(1), FLOOD_COUNT)).toEqual([]);
    expect(bundledByFlood([...waiting(20), ...waiting(3, { urgent: true })], 0)).toHaveLength(20);
  });

  it('makes one of what waited for the end of quiet hours', () => {
    expect(bundledByFlood(waiting(2, { held: true }), 0)).toEqual([]);
    expect(bundledByFlood(waiting(3, { held: true }), 0)).toHaveLength(3);
  });
});

describe('how a person wants notices', () => {
  const wish = { byEmail: true, byText: false, phone: null, quiet: null, zone: ZONE };

  it('needs a number with its country for text messages, and a zone that there is', async () => {
    await expect(noticeWishSchema.validate(wish)).resolves.toEqual(wish);
    await expect(noticeWishSchema.validate({ ...wish, byText: true })).rejects.toThrow('number');
    await expect(noticeWishSchema.validate({ ...wish, phone: '01632 960123' })).rejects.toThrow('country');
    await expect(
      noticeWishSchema.validate({ ...wish, byText: true, phone: '+44 1632 960123' }),
    ).resolves.toBeTruthy();
    await expect(noticeWishSchema.validate({ ...wish, zone: 'Mars/Olympus' })).rejects.toThrow('zone');
    await expect(
      noticeWishSchema.validate({ ...wish, quiet: { from: '25:00', to: '06:00' } }),
    ).rejects.toThrow('22:00');
  });
});
