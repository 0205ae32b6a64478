import { DateTime } from 'luxon';
import type { Interval } from './interval';
import type { WindowSpec } from './windowSpec';

/** An interval as an absolute window in the wall-clock time of a zone, to the second. */
export function localWindow({ start, end }: Interval, zone: string): WindowSpec {
  const write = (t: number): string => DateTime.fromMillis(t, { zone }).toFormat("yyyy-MM-dd'T'HH:mm:ss");
  return {
    kind: 'absolute',
    start: write(Math.floor(start / 1000) * 1000),
    end: write(Math.ceil(end / 1000) * 1000),
  };
}
