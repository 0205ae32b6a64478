import { DateTime } from 'luxon';
import { steadyZone } from '../time/steadyZone';
import { clockText, writtenDate, formatsInUse, withSigns } from './formats';

const THIN_SPACE = '\u2009';
const MINUS = '\u2212';

/** Beyond these magnitudes digits cannot be counted at a glance, so powers of ten are written. */
const LARGEST = 1e10;
const SMALLEST = 1e-5;
const SUPERSCRIPTS = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/**
 * A number with a fixed count of decimals and thousands separators; a true minus sign. Very large and very
 * small ones to three figures with a power of ten: "1.98 × 10¹²".
 * @example formatNumber(-1204.55, 1) // => '−1,204.6'
 */
export function formatNumber(value: number, decimals: number): string {
  if (!Number.isFinite(value)) return '–';
  if (needsPower(value)) return inPowers(value);
  const text = withSigns(formatterOf(decimals).format(Math.abs(value)));
  return value < 0 && /[1-9]/.test(text) ? MINUS + text : text;
}

/** Cached by number of decimals, because creating one takes far longer than using it. */
const FORMATTERS = new Map<number, Intl.NumberFormat>();

function formatterOf(decimals: number): Intl.NumberFormat {
  let made = FORMATTERS.get(decimals);
  if (!made) {
    made = new Intl.NumberFormat('en-GB', {
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
    });
    FORMATTERS.set(decimals, made);
  }
  return made;
}

/**
 * A graduation of a scale in its shortest exact form.
 * @example formatGraduation(2500) // => '2500'
 */
export function formatGraduation(value: number): string {
  return needsPower(value) ? inPowers(value) : withSigns(String(value)).replace('-', MINUS);
}

function needsPower(value: number): boolean {
  const size = Math.abs(value);
  return size >= LARGEST || (size > 0 && size < SMALLEST);
}

function inPowers(value: number): string {
  const [figures, power] = Math.abs(value).toExponential(2).split('e');
  const raised = String(Math.abs(Number(power))).replace(/\d/g, (digit) => SUPERSCRIPTS[Number(digit)]);
  return `${value < 0 ? MINUS : ''}${withSigns(String(Number(figures)))}${THIN_SPACE}×${THIN_SPACE}10${Number(power) < 0 ? '⁻' : ''}${raised}`;
}

/** Number, thin space, unit: "212 °C". */
export function formatValue(value: number | null, unit: string, decimals: number): string {
  if (value === null) return '–';
  return unit === '' ? formatNumber(value, decimals) : `${formatNumber(value, decimals)}${THIN_SPACE}${unit}`;
}

/** So many decimals more than shown values have show a small distance. */
const MORE_DECIMALS = 3;

/**
 * A distance that is not zero, never told as 0.00: with up to three decimals more, then as "just".
 *
 * @param by above 0.
 * @example formatDistance(0.0042, 1) // => '0.004'
 */
export function formatDistance(by: number, decimals: number): string {
  for (let more = 0; more <= MORE_DECIMALS; more++)
    if (Number(by.toFixed(decimals + more)) !== 0) return formatNumber(by, decimals + more);
  return 'just';
}

/**
 * Decimals that show about three figures of the larger end of a scale.
 * @example decimalsFor(0, 4) // => 2
 */
export function decimalsFor(low: number, high: number): number {
  const size = Math.max(Math.abs(low), Math.abs(high), 1e-9);
  return Math.min(9, Math.max(0, 2 - Math.floor(Math.log10(size))));
}

/**
 * A length of time: "18 min", "2 h 10 min", "3 days 4 h", "40 s".
 * @example formatLength(5_400_000) // => '1\u2009h 30\u2009min'
 */
export function formatLength(ms: number): string {
  const seconds = Math.round(ms / 1000);
  if (seconds < 60) return `${seconds}${THIN_SPACE}s`;
  const minutes = Math.floor(seconds / 60);
  if (minutes < 60) return `${minutes}${THIN_SPACE}min`;
  const hours = Math.floor(minutes / 60);
  if (hours < 48) return pair(hours, 'h', minutes % 60, 'min');
  return pair(Math.floor(hours / 24), 'days', hours % 24, 'h');
}

function pair(large: number, largeUnit: string, small: number, smallUnit: string): string {
  const first = `${large}${THIN_SPACE}${largeUnit}`;
  return small === 0 ? first : `${first} ${small}${THIN_SPACE}${smallUnit}`;
}

/** A moment on a local clock. Names of days and months are English, as all words of the interface. */
const localTime = (t: number, zone: string): DateTime =>
  DateTime.fromMillis(t, { zone: steadyZone(zone), locale: 'en-GB' });
const clockOf = ({ hour, minute }: DateTime): string => clockText(hour, minute);

/** Local time of day: "06:40". */
export function formatTime(t: number, zone: string): string {
  return clockOf(localTime(t, zone));
}

/** The same with seconds, and the date with its year: "Thu 19 Nov 2026, 06:40:00". */
export function formatExactMoment(t: number, zone: string): string {
  const at = localTime(t, zone);
  return `${writtenDate(at, 'dayOfYear')}, ${clockText(at.hour, at.minute, at.second)}`;
}

/** Local date: "Thu 19 Nov". With the year where it is not the year of `now`. */
export function formatDate(t: number, zone: string, now?: number): string {
  const at = localTime(t, zone);
  return writtenDate(at, now !== undefined && localTime(now, zone).year !== at.year ? 'dayOfYear' : 'day');
}

/**
 * Local date and time: "Thu 19 Nov, 06:40".
 * @example formatMoment(Date.UTC(2026, 10, 19, 6, 40), 'Europe/London') // => 'Thu 19 Nov, 06:40'
 */
export function formatMoment(t: number, zone: string, now?: number): string {
  return `${formatDate(t, zone, now)}, ${formatTime(t, zone)}`;
}

/**
 * The same for somebody whose own clock is that of `home`: where the site's clock shows another time, its place is said
 * too, as in "Thu 19 Nov, 07:40 in Berlin".
 */
export function formatMomentFrom(t: number, zone: string, home: string, now?: number): string {
  const moment = formatMoment(t, zone, now);
  const offset = (of: string): number => DateTime.fromMillis(t, { zone: steadyZone(of) }).offset;
  return offset(zone) === offset(home)
    ? moment
    : `${moment} in ${zone.split('/').at(-1)!.replaceAll('_', ' ')}`;
}

/**
 * A window in local words: "Sat 14 – Thu 19 Nov, 06:40". Midnights are left out, and a window that ends at
 * midnight is written with its last day.
 */
export function formatWindow(start: number, end: number, zone: string, now?: number): string {
  const a = localTime(start, zone);
  const b = localTime(end, zone);
  const isMidnight = (at: DateTime): boolean => at.equals(at.startOf('day'));
  const endsAtMidnight = isMidnight(b) && end > start;
  const last = endsAtMidnight ? b.minus({ days: 1 }) : b;
  if (isMidnight(a) && endsAtMidnight && a.hasSame(last, 'day')) return formatDate(start, zone, now);
  if (a.hasSame(b, 'day')) return `${formatDate(start, zone, now)}, ${clockOf(a)} – ${clockOf(b)}`;
  const isShort = a.hasSame(last, 'month') && formatsInUse().dateOrder === 'dayMonth';
  const shortStart = isShort ? a.toFormat('ccc d') : formatDate(start, zone, now);
  const from = isMidnight(a) ? shortStart : `${shortStart}, ${clockOf(a)}`;
  const to = formatDate(last.toMillis(), zone, now);
  return `${from} – ${endsAtMidnight && isMidnight(a) ? to : endsAtMidnight ? `${formatDate(end, zone, now)}, ${clockOf(b)}` : `${to}, ${clockOf(b)}`}`;
}
