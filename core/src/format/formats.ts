import type { DateTime } from 'luxon';
import { oneOf, shape, amount, named, type TypeOf } from '../schemas/shape';

/* How a person writes numbers, dates and times of day. What is stored, sent and exported knows none of this. */

/** How 1234.5 is written. */
export const NUMBER_FORMATS = ['1,234.5', '1.234,5', '1 234,5'] as const;
export const DATE_ORDERS = ['dayMonth', 'monthDay', 'yearMonthDay'] as const;
export const CLOCKS = ['24', '12'] as const;

export const formatsSchema = named(
  'Formats',
  shape({
    numbers: oneOf(NUMBER_FORMATS),
    dateOrder: oneOf(DATE_ORDERS),
    clock: oneOf(CLOCKS),
    /** With which day a week is listed: 1 = Monday. The weeks that are counted by are those of the plant. */
    firstWeekday: amount().integer().min(1).max(7),
  }),
);
export type Formats = TypeOf<typeof formatsSchema>;

export const USUAL_FORMATS: Formats = {
  numbers: '1,234.5',
  dateOrder: 'dayMonth',
  clock: '24',
  firstWeekday: 1,
};

let current: Formats = USUAL_FORMATS;

/** The formats in use. */
export const formatsInUse = (): Formats => current;

/** From now on, for a page that belongs to one person. On a server: {@link withFormats}. */
export function setFormats(formats: Formats): void {
  current = formats;
}

/** Does something in the formats of one person. @param work returns at once: no promise, or it would run on in others'. */
export function withFormats<T>(formats: Formats, work: () => T extends Promise<unknown> ? never : T): T {
  const before = current;
  current = formats;
  try {
    return work();
  } finally {
    current = before;
  }
}

const SIGNS: Readonly<
  Record<Formats['numbers'], { readonly decimal: '.' | ','; readonly thousands: string }>
> = {
  '1,234.5': { decimal: '.', thousands: ',' },
  '1.234,5': { decimal: ',', thousands: '.' },
  // A thin space, which the fonts have.
  '1 234,5': { decimal: ',', thousands: '\u2009' },
};

/** The signs between the figures of a number. */
export const numberSigns = () => SIGNS[current.numbers];

/** Puts the signs in use where a text of the program has its own: "1,234.5" → "1.234,5". */
export function withSigns(text: string): string {
  const { decimal, thousands } = numberSigns();
  return decimal === '.' ? text : text.replace(/[.,]/g, (sign) => (sign === '.' ? decimal : thousands));
}

/** What is said of a date. */
type DatePart = 'day' | 'dayOfYear' | 'plain' | 'plainOfYear';
const DATES: Readonly<Record<Formats['dateOrder'], Readonly<Record<DatePart, string>>>> = {
  dayMonth: { day: 'ccc d LLL', dayOfYear: 'ccc d LLL yyyy', plain: 'd LLL', plainOfYear: 'd LLL yyyy' },
  monthDay: { day: 'ccc LLL d', dayOfYear: 'ccc LLL d, yyyy', plain: 'LLL d', plainOfYear: 'LLL d, yyyy' },
  yearMonthDay: { day: 'ccc MM-dd', dayOfYear: 'ccc yyyy-MM-dd', plain: 'MM-dd', plainOfYear: 'yyyy-MM-dd' },
};

/**
 * A date: `day` "Thu 19 Nov", `dayOfYear` "Thu 19 Nov 2026", `plain` "19 Nov", `plainOfYear` "19 Nov 2026".
 * @param at its locale is en-GB: names of days and months are English, as all words of the interface.
 */
export const writtenDate = (at: DateTime, part: DatePart): string =>
  at.toFormat(DATES[current.dateOrder][part]);

const two = (n: number): string => String(n).padStart(2, '0');

/**
 * A time of day: "06:40" or "6:40 am".
 * @param seconds undefined = not said.
 */
export function clockText(hour: number, minute: number, seconds?: number): string {
  const rest = `:${two(minute)}${seconds === undefined ? '' : `:${two(seconds)}`}`;
  if (current.clock === '24') return `${two(hour)}${rest}`;
  return `${((hour + 11) % 12) + 1}${rest} ${hour % 24 < 12 ? 'am' : 'pm'}`;
}

/** An hour alone, where there is no room for more: "06" or "6 am". */
export const hourText = (hour: number): string =>
  current.clock === '24' ? two(hour) : `${((hour + 11) % 12) + 1} ${hour % 24 < 12 ? 'am' : 'pm'}`;

/** A time of day as it is stored, "22:00" or "24:00", as it is read. */
export function storedClockText(text: string): string {
  const [hour, minute] = text.split(':').map(Number);
  return current.clock === '24' ? text : clockText(hour, minute);
}

/** The days of a week, 1 = Monday, in the order they are listed in. */
export const weekdays = (): number[] =>
  Array.from({ length: 7 }, (_, i) => ((current.firstWeekday - 1 + i) % 7) + 1);

/** The first day of a week by Intl's own data, where the browser has them. */
function firstWeekdayOf(locale: string): number {
  const known = new Intl.Locale(locale) as Intl.Locale & {
    readonly getWeekInfo?: () => { readonly firstDay: number };
    readonly weekInfo?: { readonly firstDay: number };
  };
  return (known.getWeekInfo?.() ?? known.weekInfo)?.firstDay ?? USUAL_FORMATS.firstWeekday;
}

/**
 * How people of a language and country usually write, by Intl.
 *
 * @example formatsOfLocale('de-DE').numbers // => '1.234,5'
 */
export function formatsOfLocale(locale: string): Formats {
  const numbers = new Intl.NumberFormat(locale, { numberingSystem: 'latn' }).formatToParts(12345.6);
  const sign = (type: string): string => numbers.find((part) => part.type === type)?.value ?? '';
  const dates = new Intl.DateTimeFormat(locale, {
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    calendar: 'gregory',
  })
    .formatToParts(0)
    .map(({ type }) => type)
    .filter((type) => ['year', 'month', 'day'].includes(type));
  const { hour12 } = new Intl.DateTimeFormat(locale, { hour: 'numeric' }).resolvedOptions();
  return {
    numbers: sign('decimal') === ',' ? (sign('group') === '.' ? '1.234,5' : '1 234,5') : '1,234.5',
    dateOrder: dates[0] === 'year' ? 'yearMonthDay' : dates[0] === 'month' ? 'monthDay' : 'dayMonth',
    clock: hour12 === true ? '12' : '24',
    firstWeekday: firstWeekdayOf(locale),
  };
}

/** The same for the first of these that Intl knows; none = as usual. @param locales "de-DE", as a browser names them. */
export function formatsOfLocales(locales: readonly string[]): Formats {
  for (const locale of locales) {
    try {
      if (locale !== '*') return formatsOfLocale(locale);
    } catch {
      // Not a language tag: the next one may be.
    }
  }
  return USUAL_FORMATS;
}
