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

/**
 * An interval as an absolute window, if wall-clock times tell it: null for one with an end in the hour that comes twice when
 * clocks go back, if its time is read as that of the other.
 */
export function localStretch(interval: Interval, zone: string): WindowSpec | null {
  const window = localWindow(interval, zone);
  if (window.kind !== 'absolute') return null;
  const read = (text: string): number => DateTime.fromISO(text, { zone }).toMillis();
  return read(window.start) === interval.start && read(window.end) === interval.end ? window : null;
}
