const LANGUAGES = ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'sv', 'da', 'nb', 'pl', 'cs', 'fi', 'tr', 'ro'];

/** Spellings that files have and the language data does not. */
const ALSO: Readonly<Record<string, number>> = {
  sept: 9,
  mrz: 3,
  maerz: 3,
  jaenner: 1,
  janner: 1,
  feber: 2,
  maart: 3,
  mrt: 3,
  dez: 12,
  okt: 10,
};

/** "Août." → "aout": case, accents and full stops do not matter. */
function plain(word: string): string {
  return word
    .normalize('NFD')
    .replace(/[\u0300-\u036f.]/g, '')
    .toLowerCase();
}

function namesOf(options: Intl.DateTimeFormatOptions, dates: readonly Date[]): Map<string, number> {
  const names = new Map<string, number>();
  for (const language of LANGUAGES) {
    for (const style of ['long', 'short'] as const) {
      // The day beside the month gives the form that stands in dates: Polish "stycznia", not "styczeń".
      for (const day of [undefined, 'numeric'] as const) {
        const format = new Intl.DateTimeFormat(language, {
          ...withStyle(options, style),
          day,
          timeZone: 'UTC',
        });
        dates.forEach((date, i) => {
          const part = format.formatToParts(date).find(({ type }) => type === 'month' || type === 'weekday');
          const name = plain(part?.value ?? '');
          if (/^\p{L}+$/u.test(name) && !names.has(name)) names.set(name, i + 1);
        });
      }
    }
  }
  return names;
}

function withStyle(options: Intl.DateTimeFormatOptions, style: 'long' | 'short'): Intl.DateTimeFormatOptions {
  return Object.fromEntries(Object.keys(options).map((key) => [key, style]));
}

let months: Map<string, number> | null = null;
let weekdays: Map<string, number> | null = null;

/**
 * Number of the month (1 to 12) that a word names in one of 15 European languages; 0 for any other word.
 * @example monthOf('März') // => 3
 */
export function monthOf(word: string): number {
  months ??= new Map([
    ...Object.entries(ALSO),
    ...namesOf(
      { month: 'long' },
      Array.from({ length: 12 }, (_, m) => new Date(Date.UTC(2024, m, 15))),
    ),
  ]);
  return months.get(plain(word)) ?? 0;
}

/** Does a word name a day of the week? Such a word says nothing that the date does not. */
export function isWeekday(word: string): boolean {
  // 1 January 2024 was a Monday.
  weekdays ??= namesOf(
    { weekday: 'long' },
    Array.from({ length: 7 }, (_, d) => new Date(Date.UTC(2024, 0, 1 + d))),
  );
  return weekdays.has(plain(word));
}
