import fc from 'fast-check';
import { IANAZone } from 'luxon';
import moment from 'moment-timezone';
import { localDays, zoneClock } from './zoneClock';

const ZONES = [
  'Europe/London',
  'Europe/Berlin',
  'America/New_York',
  'America/St_Johns',
  'America/Sao_Paulo',
  'Asia/Kathmandu',
  'Asia/Kolkata',
  'Asia/Tehran',
  'Asia/Beirut',
  'Africa/Casablanca',
  'Australia/Lord_Howe',
  'Australia/Adelaide',
  'Pacific/Chatham',
  'Pacific/Apia',
  'America/Havana',
  'UTC',
];
const DAY = 86_400_000;

/** Zones whose rules were decreed anew so often that two copies of the data differ by their age. */
const DRIFTING = new Set(['Africa/Casablanca', 'America/Havana']);

describe('zoneClock', () => {
  it.each(ZONES)('has the offsets that the zone itself has, however far apart it looks, in %s', (zone) => {
    const { offset } = zoneClock(zone);
    const exact = IANAZone.create(zone);
    fc.assert(
      fc.property(fc.integer({ min: Date.UTC(1975, 0, 1), max: Date.UTC(2037, 11, 31) }), (t) => {
        expect(offset(t)).toBe(exact.offset(t) * 60_000);
      }),
      { numRuns: 400 },
    );
  });

  it.each(ZONES.filter((zone) => !DRIFTING.has(zone)))(
    'has the offsets of the tz database in %s (own copy of the data in moment-timezone)',
    (zone) => {
      const { offset } = zoneClock(zone);
      fc.assert(
        fc.property(fc.integer({ min: Date.UTC(1995, 0, 1), max: Date.UTC(2026, 11, 31) }), (t) => {
          expect(offset(t)).toBe(moment.tz(t, zone).utcOffset() * 60_000);
        }),
        { numRuns: 400 },
      );
    },
  );

  it.each(ZONES)('begins days where the tz database does in %s', (zone) => {
    const days = localDays(Date.UTC(2010, 11, 20), Date.UTC(2013, 0, 5), zone);
    for (const { start, end, wallMs, weekday } of days) {
      const first = moment.tz(start, zone);
      const skipped = start === end;
      if (skipped) continue;
      expect(start).toBe(first.clone().startOf('day').valueOf());
      expect(first.format('YYYY-MM-DD')).toBe(new Date(wallMs).toISOString().slice(0, 10));
      expect(weekday).toBe(first.isoWeekday());
    }
    for (let i = 1; i < days.length; i++) expect(days[i].start).toBe(days[i - 1].end);
  });

  it('gives days of 23, 24 and 25 hours, and one that was left out altogether', () => {
    const lengths = (from: number, to: number, zone: string): number[] =>
      localDays(from, to, zone).map(({ start, end }) => (end - start) / 3_600_000);
    expect(lengths(Date.UTC(2026, 2, 28, 12), Date.UTC(2026, 2, 29, 20), 'Europe/Berlin')).toEqual([24, 23]);
    expect(lengths(Date.UTC(2026, 9, 25, 2), Date.UTC(2026, 9, 25, 20), 'Europe/Berlin')).toEqual([25]);
    // Samoa went over the date line: 30 December 2011 never was.
    expect(lengths(Date.UTC(2011, 11, 29, 20), Date.UTC(2011, 11, 31, 3), 'Pacific/Apia')).toContain(0);
  });

  it('takes the first of a repeated hour, and the jump for an hour that never was', () => {
    const { instant } = zoneClock('Europe/London');
    expect(instant(Date.UTC(2026, 9, 25, 1, 30))).toBe(Date.UTC(2026, 9, 25, 0, 30));
    expect(instant(Date.UTC(2026, 2, 29, 1, 30))).toBe(Date.UTC(2026, 2, 29, 1, 30));
    expect(() => zoneClock('Mars/Olympus')).toThrow('Unknown time zone');
  });

  it('is a whole number of quarters of an hour ahead, so that quarters make up every local day', () => {
    for (const zone of ZONES) {
      for (let t = Date.UTC(1975, 0, 1); t < Date.UTC(2030, 0, 1); t += 20 * DAY) {
        expect(Math.abs(zoneClock(zone).offset(t)) % 900_000).toBe(0);
      }
    }
  });
});
