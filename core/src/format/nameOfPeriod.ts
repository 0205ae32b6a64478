import { DateTime } from 'luxon';
import type { Bucket } from '../time/buckets';
import type { Interval } from '../time/interval';
import { steadyZone } from '../time/steadyZone';
import { formatWindow } from './format';

/** Formats of periods that have a name of their own. */
const NAMED: Readonly<Partial<Record<Bucket, string>>> = { month: 'LLLL yyyy', year: 'yyyy' };

/**
 * The name of a period on the local calendar; one that has not ended is "so far".
 *
 * @example
 * nameOfPeriod({ start: Date.UTC(2026, 9, 1), end: Date.UTC(2026, 10, 1) }, 'month', 'UTC', Date.UTC(2026, 9, 8))
 * // => 'October 2026 so far'
 */
export function nameOfPeriod({ start, end }: Interval, bucket: Bucket, zone: string, now: number): string {
  const at = DateTime.fromMillis(start, { zone: steadyZone(zone), locale: 'en-GB' });
  const format = NAMED[bucket];
  const name =
    bucket === 'quarter' || bucket === 'financialQuarter'
      ? quarterName(at)
      : format
        ? at.toFormat(format)
        : formatWindow(start, end, zone, now);
  return end > now && start <= now ? `${name} so far` : name;
}

const quarterName = (at: DateTime): string =>
  `${at.toFormat('LLLL')} to ${at.plus({ months: 2 }).toFormat('LLLL yyyy')}`;
