import {
  formatLength,
  formatNumber,
  LEVEL_WORDS,
  LEVELS,
  SUMMARY_WORDS,
  windowText,
  type FlagEvidence,
  type Interval,
  type StretchNumbers,
} from '@vivid-beacon/core';
import { localWindow } from '@vivid-beacon/core';
import { levelsByWords } from './levelsByWords';

const DECIMALS = 2;

/** Every number of a stretch with its name. */
export function stretchRows({ value, unit, values, coverage, samples }: StretchNumbers): [string, string][] {
  const number = (x: number | null, of: string): string =>
    x === null ? 'none' : `${formatNumber(x, DECIMALS)} ${of}`.trim();
  const own: [string, string][] = values.length === 0 ? [['Value', number(value, unit)]] : [];
  return [
    ...own,
    ...values.map((each): [string, string] => [
      capital(SUMMARY_WORDS[each.summary]),
      number(each.value, each.unit),
    ]),
    ['Samples', `${formatNumber(samples, 0)}, coverage ${formatNumber(coverage * 100, 1)} %`],
  ];
}

/** The content of the tray as tab-separated lines, for pasting into a sheet. */
export function stretchText(
  title: string,
  when: string,
  all: readonly StretchNumbers[],
  nameOf: (i: number) => string,
): string {
  const lines = [title, when];
  all.forEach((numbers, i) => {
    lines.push('', nameOf(i));
    for (const [label, text] of stretchRows(numbers)) lines.push(`${label}\t${text}`);
    if (numbers.levels) {
      for (const level of LEVELS) lines.push(`${LEVEL_WORDS[level]}\t${formatLength(numbers.levels[level])}`);
      lines.push(`Time on levels\t${levelsByWords(numbers.levelsBy)}`);
    }
  });
  return lines.join('\n');
}

function capital(text: string): string {
  return text[0].toUpperCase() + text.slice(1);
}

interface StretchSeen {
  readonly title: string;
  readonly stretch: Interval;
  readonly zone: string;
  readonly all: readonly StretchNumbers[];
  readonly nameOf: (i: number) => string;
}

const MAX_NUMBERS = 60;
const LONGEST = 200;

/** Evidence of a stretch for a flag: its numbers, and the address of the view with this window. */
export function stretchEvidence({ title, stretch, zone, all, nameOf }: StretchSeen): FlagEvidence {
  const { pathname, search } = window.location;
  const address = new URLSearchParams(search);
  address.set('window', windowText(localWindow(stretch, zone)));
  const numbers = all.flatMap((each, i) => [
    ...stretchRows(each).map(([name, text]) => ({
      name: all.length > 1 ? `${nameOf(i)}: ${name}` : name,
      text,
    })),
    ...(each.levels
      ? [
          ...LEVELS.map((level) => ({ name: LEVEL_WORDS[level], text: formatLength(each.levels![level]) })),
          { name: 'Time on levels', text: levelsByWords(each.levelsBy) },
        ]
      : []),
  ]);
  return {
    title: (all.length > 1 ? title : nameOf(0)).slice(0, 300),
    address: `${pathname}?${address.toString()}`,
    window: { start: Math.round(stretch.start), end: Math.round(stretch.end) },
    numbers: numbers.slice(0, MAX_NUMBERS).map(({ name, text }) => ({ name: name.slice(0, LONGEST), text })),
  };
}
