import { startOfPeriod } from '../time/periodStart';
import { IANAZone } from 'luxon';
import { FIRST_TIME } from '../time/knownYears';
import { localTimeReader, type LocalTime } from '../time/localTime';
import type { Block, Events, FileLayout } from './layout';
import { monthOf } from './monthNames';
import { instantOf, parseTimeCell } from './timeFormat';

/** No sample is older than the years that the product knows. */
export const EARLIEST_TIME = FIRST_TIME;

/** The time of a row as one text: date and time of day where they stand apart, year, month and day joined. */
export function timeText(cells: readonly string[], { timeColumns, timeParts }: Block): string {
  if (timeColumns.length === 1) return cells[timeColumns[0]] ?? '';
  const part = (wanted: string): string | undefined => {
    const at = timeParts.indexOf(wanted as (typeof timeParts)[number]);
    return at < 0 ? undefined : (cells[timeColumns[at]] ?? '').trim();
  };
  const year = part('year');
  const month = part('month');
  let date = part('time') ?? '';
  if (year !== undefined && month !== undefined) {
    const number = monthOf(month) || month;
    date = [year, String(number).padStart(2, '0'), (part('day') ?? '01').padStart(2, '0')].join('-');
    if ([year, month, part('day') ?? '01'].some((each) => each === '')) return '';
  }
  const hour = part('hour');
  const clock =
    part('clock') ??
    (hour === undefined ? '' : `${hour.padStart(2, '0')}:${(part('minute') ?? '0').padStart(2, '0')}`);
  if (clock === '') return date;
  return `${date.replace(/[T ]00:00(?::00(?:\.0+)?)?$/, '')} ${clock}`;
}

/** Reads the time of a row, or says why not. */
export type RowClock = (
  written: string,
  key: string | number,
) => { readonly t: number; readonly repeated: boolean } | { readonly reason: string };

/**
 * Makes a reader of the times of one file.
 *
 * @param zone of local times. @param latest times after it are refused, ms.
 */
export function rowClock(
  { timeFormat, century, repeatedHour, blocks }: FileLayout,
  zone: string,
  latest: number,
): RowClock {
  const local = zonesReader(zone);
  const before = new Map<string | number, number>();
  const serialWithClock =
    timeFormat.startsWith('serial') && blocks.some(({ timeParts }) => timeParts.includes('clock'));
  return (written, key) => {
    const cell = serialWithClock
      ? serialAndClock(written, timeFormat)
      : parseTimeCell(written, timeFormat, century);
    if (cell.kind === 'wall' && cell.zone !== undefined && !IANAZone.isValidZone(cell.zone)) {
      return { reason: `there is no time zone "${cell.zone}"` };
    }
    const when = instantOf(cell, local);
    if ('reason' in when) return when;
    let t = when.t;
    if (when.second !== undefined) {
      const last = before.get(key);
      const later = repeatedHour === 'inOrder' && last !== undefined && t <= last && when.second > last;
      if (repeatedHour === 'second' || later) t = when.second;
    }
    if (t > latest) return { reason: 'lies in the future' };
    if (t < EARLIEST_TIME) return { reason: 'lies before 1500' };
    before.set(key, t);
    return { t, repeated: when.second !== undefined };
  };
}

function serialAndClock(written: string, format: FileLayout['timeFormat']): ReturnType<typeof parseTimeCell> {
  const [days, clock = ''] = written.trim().split(/\s+(.*)/);
  const date = parseTimeCell(days, format);
  const time = parseTimeCell(`2000-01-01 ${clock}`, 'iso');
  if (date.kind !== 'wall' || time.kind !== 'wall') return { kind: 'unreadable' };
  return { kind: 'wall', wallMs: date.wallMs + time.wallMs - Date.UTC(2000, 0, 1) };
}

/** Reads wall-clock times of the file's zone and of zones that stand behind single times. */
function zonesReader(zone: string): (wallMs: number, own?: string) => LocalTime {
  const ofFile = localTimeReader(zone);
  const others = new Map<string, (wallMs: number) => LocalTime>();
  return (wallMs, own) => {
    if (own === undefined) return ofFile(wallMs);
    let reader = others.get(own);
    if (!reader) {
      reader = localTimeReader(own);
      others.set(own, reader);
    }
    return reader(wallMs);
  };
}

/** Start of the period of the site's calendar in which an event lies, ms. */
export function periodOf({ per }: Events, zone: string): (t: number) => number {
  const known = new Map<number, number>();
  const HOUR = 3_600_000;
  return (t) => {
    // Periods change on the hour, or at a quarter of one in some zones.
    const quarter = Math.floor(t / (HOUR / 4));
    let start = known.get(quarter);
    if (start === undefined) {
      start = startOfPeriod(quarter * (HOUR / 4), per, zone);
      if (known.size < 100_000) known.set(quarter, start);
    }
    return start;
  };
}
