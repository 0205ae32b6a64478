import moment from 'moment-timezone';
import { bucketEdges } from './buckets';
import { localTimeReader } from './localTime';
import { previousWindow } from './previousWindow';
import { resolveWindow, sameWindow, windowWords } from './window';
import { type WindowSpec } from './windowSpec';
import { ONE_DAY, ONE_HOUR } from '../testing/makeSeries';

/* moment-timezone carries its own copy of the tz database: a source apart from the platform's. */
const ZONES = [
  'Europe/London',
  'Europe/Berlin',
  'America/St_Johns',
  'Asia/Kathmandu',
  'Australia/Lord_Howe',
  'UTC',
];
const at = (text: string, zone: string): number => moment.tz(text, zone).valueOf();

describe('resolveWindow', () => {
  it.each(ZONES)('begins days at local midnight in %s, clock changes included', (zone) => {
    for (let day = 0; day < 365; day += 7) {
      const now = Date.UTC(2026, 0, 1, 13, 20) + day * ONE_DAY;
      const today = moment.tz(now, zone).startOf('day');
      expect(resolveWindow({ kind: 'toDate', unit: 'day' }, now, zone)).toEqual({
        start: today.valueOf(),
        end: today.clone().add(1, 'day').valueOf(),
      });
    }
  });

  it('has a day of 23 hours in spring and one of 25 in autumn', () => {
    const length = (date: string): number => {
      const { start, end } = resolveWindow(
        { kind: 'toDate', unit: 'day' },
        at(`${date} 12:00`, 'Europe/London'),
        'Europe/London',
      );
      return (end - start) / ONE_HOUR;
    };
    expect(length('2026-03-29')).toBe(23);
    expect(length('2026-10-25')).toBe(25);
  });

  it('begins weeks on Monday and quarters on their first day (ISO 8601)', () => {
    const now = at('2026-11-19 06:40', 'Europe/Berlin');
    expect(resolveWindow({ kind: 'toDate', unit: 'week' }, now, 'Europe/Berlin').start).toBe(
      at('2026-11-16', 'Europe/Berlin'),
    );
    expect(resolveWindow({ kind: 'toDate', unit: 'quarter' }, now, 'Europe/Berlin').start).toBe(
      at('2026-10-01', 'Europe/Berlin'),
    );
  });

  it('takes whole periods with or without the current one', () => {
    const now = at('2026-11-19 06:40', 'UTC');
    expect(resolveWindow({ kind: 'periods', count: 7, unit: 'day', current: false }, now, 'UTC')).toEqual({
      start: at('2026-11-12', 'UTC'),
      end: at('2026-11-19', 'UTC'),
    });
    expect(resolveWindow({ kind: 'periods', count: 7, unit: 'day', current: true }, now, 'UTC')).toEqual({
      start: at('2026-11-13', 'UTC'),
      end: at('2026-11-20', 'UTC'),
    });
  });

  it('refuses a window that ends before it starts, a wrong time and an unknown zone', () => {
    const absolute = (start: string, end: string): WindowSpec => ({ kind: 'absolute', start, end });
    expect(() => resolveWindow(absolute('2026-02-02', '2026-02-01'), 0, 'UTC')).toThrow(
      'must end after it starts',
    );
    expect(() => resolveWindow(absolute('yesterday', '2026-02-01'), 0, 'UTC')).toThrow('got "yesterday"');
    expect(() => resolveWindow({ kind: 'toDate', unit: 'day' }, 0, 'Mars/Base')).toThrow('Unknown time zone');
    expect(() => resolveWindow({ kind: 'rolling', count: 0, unit: 'day' }, 0, 'UTC')).toThrow('at least 1');
  });
});

describe('previousWindow', () => {
  it('sets half a day against the same half of the day before', () => {
    const now = at('2026-11-19 06:00', 'UTC');
    expect(previousWindow({ kind: 'toDate', unit: 'day' }, now, 'UTC')).toEqual({
      start: at('2026-11-18 00:00', 'UTC'),
      end: at('2026-11-18 06:00', 'UTC'),
    });
  });

  it('never reaches into the window it is compared with', () => {
    for (const spec of [
      { kind: 'toDate', unit: 'month' },
      { kind: 'rolling', count: 5, unit: 'hour' },
      { kind: 'periods', count: 2, unit: 'week', current: false },
    ] as WindowSpec[]) {
      const now = at('2026-03-31 18:00', 'Europe/London');
      expect(previousWindow(spec, now, 'Europe/London').end).toBeLessThanOrEqual(
        resolveWindow(spec, now, 'Europe/London').start,
      );
    }
  });
});

describe('bucketEdges', () => {
  it('cuts a day of a clock change into 23 or 25 hours, each an hour long', () => {
    for (const [date, hours] of [
      ['2026-03-29', 23],
      ['2026-10-25', 25],
    ] as const) {
      const window = { start: at(date, 'Europe/Berlin'), end: at(date, 'Europe/Berlin') + hours * ONE_HOUR };
      const edges = bucketEdges(window, 'hour', 'Europe/Berlin');
      expect(edges).toHaveLength(hours + 1);
      edges.slice(1).forEach((edge, i) => expect(edge - edges[i]).toBe(ONE_HOUR));
    }
  });

  it('refuses more periods than anybody can look at', () => {
    expect(() => bucketEdges({ start: 0, end: 3000 * ONE_DAY }, 'hour', 'UTC')).toThrow(
      'Choose a longer period',
    );
  });
});

describe('localTimeReader', () => {
  it.each(ZONES)('agrees with the tz database through a year in %s', (zone) => {
    const read = localTimeReader(zone);
    for (let wall = Date.UTC(2026, 0, 1); wall < Date.UTC(2027, 0, 1); wall += 5.5 * ONE_HOUR) {
      const expected = moment.tz(new Date(wall).toISOString().slice(0, 19), zone);
      const meant = read(wall);
      // A wall-clock time that never was is moved on by the reference; it then reads differently.
      if (expected.format('YYYY-MM-DDTHH:mm:ss') !== new Date(wall).toISOString().slice(0, 19))
        expect(meant.kind).toBe('never');
      else if (meant.kind !== 'never')
        expect([meant.t, meant.kind === 'twice' ? meant.second : meant.t]).toContain(expected.valueOf());
    }
  });

  it('knows the hour that never was and the hour that came twice', () => {
    const read = localTimeReader('Europe/London');
    expect(read(Date.UTC(2026, 2, 29, 1, 30))).toEqual({ kind: 'never' });
    expect(read(Date.UTC(2026, 9, 25, 1, 30))).toEqual({
      kind: 'twice',
      t: Date.UTC(2026, 9, 25, 0, 30),
      second: Date.UTC(2026, 9, 25, 1, 30),
    });
  });
});

describe('windowWords', () => {
  it('says a window as one would', () => {
    expect(windowWords({ kind: 'rolling', count: 7, unit: 'day' })).toBe('the last 7 days');
    expect(windowWords({ kind: 'toDate', unit: 'day' })).toBe('today so far');
    expect(windowWords({ kind: 'periods', count: 1, unit: 'week', current: false })).toBe('the week before');
  });

  it('takes windows for the same whatever the order of their parts', () => {
    expect(sameWindow({ kind: 'toDate', unit: 'day' }, { unit: 'day', kind: 'toDate' })).toBe(true);
    expect(sameWindow({ kind: 'toDate', unit: 'day' }, { kind: 'toDate', unit: 'week' })).toBe(false);
  });
});
