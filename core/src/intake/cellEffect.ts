import { DateTime } from 'luxon';
import { parseDuration } from './durationText';
import { isTimePart, type ColumnPart, type TimePart } from './layout';
import { monthOf } from './monthNames';
import { readSignedNumber, type DecimalSign } from './numberText';
import { fittingTimeFormats, isClockCell, parseTimeCell, type Century, type TimeFormat } from './timeFormat';

/** How a cell is read as a time under a format: "Thu 19 Nov 2026 06:40"; null where it is none. */
export function timeEffect(cell: string, format: TimeFormat, century: Century | null = null): string | null {
  const time = parseTimeCell(cell, format, century ?? 'sliding');
  if (time.kind === 'unreadable') return null;
  const t = time.kind === 'instant' ? time.t : time.wallMs;
  const shown = DateTime.fromMillis(t, { zone: 'utc' });
  if (!shown.isValid) return null;
  const clock =
    t % 86_400_000 === 0 && time.kind === 'wall' ? '' : shown.second === 0 ? ' HH:mm' : ' HH:mm:ss';
  const zone = time.kind === 'instant' ? ' UTC' : time.zone ? ` ${time.zone}` : '';
  return `${shown.toFormat(`ccc d LLL yyyy${clock}`)}${zone}`;
}

/** Whether a cell can be this part of a time. */
function fitsPart(part: Exclude<TimePart, 'time'>, cell: string): boolean {
  if (part === 'clock') return isClockCell(cell);
  if (part === 'month' && monthOf(cell) > 0) return true;
  const most = { year: 2999, month: 12, day: 31, hour: 24, minute: 59 }[part];
  return /^\d{1,4}$/.test(cell) && Number(cell) <= most && (part !== 'year' || cell.length === 4);
}

/** What an example cell would be under a part, for a person who chooses one; null where it cannot be read so. */
export function partEffect(
  part: ColumnPart,
  cell: string,
  { decimal, timeFormat }: { readonly decimal: DecimalSign; readonly timeFormat: TimeFormat },
): string | null {
  if (part === 'name') return `names the series “${cell}”`;
  if (part === 'unit') return `gives the unit “${cell}”`;
  if (part === 'leftOut') return 'is not taken';
  if (part === 'time') {
    const formats = [timeFormat, ...fittingTimeFormats([cell]), 'period', 'epoch-mixed', 'serial'] as const;
    for (const format of formats) {
      const read = timeEffect(cell, format);
      if (read) return `is ${read}`;
    }
    return null;
  }
  if (isTimePart(part))
    return fitsPart(part, cell) ? `gives the ${part === 'clock' ? 'time of day' : part} ${cell}` : null;
  const number = readSignedNumber(cell, decimal);
  if (number) return `is ${number.value}${number.sign ? ` ${number.sign}` : ''}`;
  const seconds = parseDuration(cell);
  return Number.isNaN(seconds) ? null : `is ${seconds} s`;
}
