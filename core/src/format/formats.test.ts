import fc from 'fast-check';
import { hoursWords } from '../time/hours';
import { timeTicks } from '../drawing/trend/trendGeometry';
import { formatExactMoment, formatGraduation, formatMoment, formatNumber, formatWindow } from './format';
import {
  formatsInUse,
  formatsOfLocale,
  formatsOfLocales,
  formatsSchema,
  NUMBER_FORMATS,
  setFormats,
  USUAL_FORMATS,
  weekdays,
  withFormats,
  type Formats,
} from './formats';
import { exactNumber, fieldText, readTypedNumber, understoodAs } from './typedNumber';

const T = Date.UTC(2026, 10, 19, 18, 5, 9);
const as = <R extends string | number | object | null>(part: Partial<Formats>, work: () => R): R =>
  withFormats({ ...USUAL_FORMATS, ...part }, work as never);

/** CLDR's way to write numbers, as the Intl of the platform has it. */
const LOCALE: Readonly<Record<Formats['numbers'], string>> = {
  '1,234.5': 'en-GB',
  '1.234,5': 'de-DE',
  '1 234,5': 'fr-FR',
};

describe('numbers', () => {
  it('are written as Intl writes them in a country that does so, but for the width of a space', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...NUMBER_FORMATS),
        fc.double({ min: 0.01, max: 9e9, noNaN: true }),
        fc.integer({ min: 0, max: 4 }),
        (numbers, value, decimals) => {
          const digits = { minimumFractionDigits: decimals, maximumFractionDigits: decimals };
          const expected = new Intl.NumberFormat(LOCALE[numbers], digits)
            .format(value)
            .replace(/\s/g, '\u2009');
          expect(as({ numbers }, () => formatNumber(value, decimals))).toBe(expected);
        },
      ),
    );
  });

  it('that are put into a field, or written in full, are read as what they are', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...NUMBER_FORMATS),
        fc.double({ min: -1e9, max: 1e9, noNaN: true }).map((x) => Number(x.toFixed(6)) + 0),
        (numbers, value) => {
          expect(as({ numbers }, () => readTypedNumber(fieldText(value))!.value)).toBe(value);
          expect(as({ numbers }, () => readTypedNumber(exactNumber(value))!.value)).toBe(value);
        },
      ),
    );
  });

  it('that could be read in two ways are read as the screen writes them', () => {
    expect(readTypedNumber('1,250')).toEqual({ value: 1250, other: 1.25 });
    expect(as({ numbers: '1.234,5' }, () => readTypedNumber('1,250'))).toEqual({ value: 1.25, other: 1250 });
    expect(as({ numbers: '1.234,5' }, () => readTypedNumber('1.250'))).toEqual({ value: 1250, other: 1.25 });
    expect(as({ numbers: '1.234,5' }, () => understoodAs('1.250'))).toBe('Read as 1.250, not 1,25');
    expect(as({ numbers: '1.234,5' }, () => understoodAs('12,5'))).toBeNull();
    expect(as({ numbers: '1.234,5' }, () => understoodAs('12.5'))).toBe('= 12,5');
  });

  it('keep their minus, powers and graduations', () => {
    expect(as({ numbers: '1.234,5' }, () => formatNumber(-1204.55, 1))).toBe('−1.204,6');
    expect(as({ numbers: '1.234,5' }, () => formatNumber(-0.01, 1))).toBe('0,0');
    expect(as({ numbers: '1.234,5' }, () => formatNumber(1.98e12, 0))).toBe('1,98\u2009×\u200910¹²');
    expect(as({ numbers: '1.234,5' }, () => formatGraduation(-2.5))).toBe('−2,5');
  });
});

describe('dates and times', () => {
  it.each<[Partial<Formats>, string, string]>([
    [{}, 'Thu 19 Nov 2026, 18:05', '18:05 to 06:30'],
    [{ dateOrder: 'monthDay', clock: '12' }, 'Thu Nov 19, 2026, 6:05 pm', '6:05 pm to 6:30 am'],
    [{ dateOrder: 'yearMonthDay' }, 'Thu 2026-11-19, 18:05', '18:05 to 06:30'],
  ])('with %j', (part, moment, hours) => {
    expect(as(part, () => formatMoment(T, 'UTC', 0))).toBe(moment);
    expect(as(part, () => hoursWords({ kind: 'clock', from: '18:05', to: '06:30' }))).toBe(hours);
  });

  it('at midnight and noon are 12 on a clock of twelve hours', () => {
    const at = (hour: number): string =>
      as({ clock: '12' }, () => formatMoment(Date.UTC(2026, 10, 19, hour), 'UTC')).split(', ')[1];
    expect([0, 11, 12, 13, 23].map(at)).toEqual(['12:00 am', '11:00 am', '12:00 pm', '1:00 pm', '11:00 pm']);
    expect(as({ clock: '12' }, () => hoursWords({ kind: 'clock', from: '22:00', to: '24:00' }))).toBe(
      '10:00 pm to 12:00 am',
    );
    expect(as({ clock: '12' }, () => formatExactMoment(T, 'UTC'))).toBe('Thu 19 Nov 2026, 6:05:09 pm');
  });

  it('of a window name both days where the order needs it', () => {
    const [from, to] = [Date.UTC(2026, 10, 14), Date.UTC(2026, 10, 20)];
    expect(formatWindow(from, to, 'UTC')).toBe('Sat 14 – Thu 19 Nov');
    expect(as({ dateOrder: 'monthDay' }, () => formatWindow(from, to, 'UTC'))).toBe(
      'Sat Nov 14 – Thu Nov 19',
    );
  });

  it('on an axis follow too, and are not kept from one person to the next', () => {
    const window = { start: Date.UTC(2026, 10, 19, 6), end: Date.UTC(2026, 10, 19, 18) };
    const labels = (part: Partial<Formats>): string[] =>
      as(part, () => timeTicks(window, 'UTC', 400).map(({ label }) => label));
    expect(labels({})).toContain('12:00');
    expect(labels({ clock: '12' })).toContain('12:00 pm');
    expect(labels({})).toContain('12:00');
  });
});

describe('the formats of a country', () => {
  // From CLDR by Intl; the expectations from memory of how people there write.
  it.each<[string, Partial<Formats>]>([
    ['en-GB', { numbers: '1,234.5', dateOrder: 'dayMonth', clock: '24', firstWeekday: 1 }],
    ['en-US', { numbers: '1,234.5', dateOrder: 'monthDay', clock: '12', firstWeekday: 7 }],
    ['de-DE', { numbers: '1.234,5', dateOrder: 'dayMonth', clock: '24', firstWeekday: 1 }],
    ['fr-FR', { numbers: '1 234,5', dateOrder: 'dayMonth', clock: '24', firstWeekday: 1 }],
    ['sv-SE', { numbers: '1 234,5', dateOrder: 'yearMonthDay', clock: '24', firstWeekday: 1 }],
    ['ja-JP', { numbers: '1,234.5', dateOrder: 'yearMonthDay', clock: '24', firstWeekday: 7 }],
    ['ar-EG', { firstWeekday: 6 }],
  ])('%s', (locale, expected) => {
    const found = formatsOfLocale(locale);
    expect(found).toMatchObject(expected);
    expect(formatsSchema.isValidSync(found)).toBe(true);
  });

  it('are those of the first language that is one', () => {
    expect(formatsOfLocales(['*', 'not a tag', 'de-DE', 'en-US']).numbers).toBe('1.234,5');
    expect(formatsOfLocales(['*'])).toEqual(USUAL_FORMATS);
  });

  it('list a week from its first day', () => {
    expect(as({ firstWeekday: 7 }, () => weekdays())).toEqual([7, 1, 2, 3, 4, 5, 6]);
  });
});

describe('formats in use', () => {
  afterEach(() => setFormats(USUAL_FORMATS));

  it('are those of before again after work in those of another, also after a failure', () => {
    setFormats({ ...USUAL_FORMATS, clock: '12' });
    expect(() =>
      as({ clock: '24' }, () => {
        throw new Error('x');
      }),
    ).toThrow('x');
    expect(formatsInUse().clock).toBe('12');
  });
});
