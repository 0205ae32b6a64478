import type { Bucket } from '../time/buckets';
import { nameOfPeriod } from './nameOfPeriod';

it.each([
  ['month', '2026-10-01', '2026-11-01', 'October 2026'],
  ['quarter', '2026-07-01', '2026-10-01', 'July to September 2026'],
  ['year', '2025-01-01', '2026-01-01', '2025'],
  ['day', '2026-11-18', '2026-11-19', 'Wed 18 Nov'],
  ['month', '2026-11-01', '2026-12-01', 'November 2026 so far'],
  ['week', '2026-11-09', '2026-11-16', 'Mon 9 – Sun 15 Nov'],
  ['hour', '2026-11-18T06:00', '2026-11-18T07:00', 'Wed 18 Nov, 06:00 – 07:00'],
])('names a %s by its calendar: %s to %s is %s', (bucket, from, to, name) => {
  const [start, end] = [from, to].map((each) => Date.parse(each.length > 10 ? `${each}Z` : each));
  const now = Date.UTC(2026, 10, 19, 12);
  expect(nameOfPeriod({ start, end }, bucket as Bucket, 'UTC', now).replace(/\s/g, ' ')).toBe(name);
});
