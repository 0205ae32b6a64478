import { parseNumber } from '../intake/numberText';
import { numberSigns, withSigns } from './formats';

/** What a typed text says. */
export interface TypedNumber {
  readonly value: number;
  /** What it would be with the other decimal sign; null where only one reading is possible. */
  readonly other: number | null;
}

const SUFFIXES: Readonly<Record<string, number>> = {
  k: 1e3,
  thousand: 1e3,
  M: 1e6,
  mn: 1e6,
  million: 1e6,
  millions: 1e6,
};
const SUPERSCRIPTS = '⁰¹²³⁴⁵⁶⁷⁸⁹';
const POWER = /^(.+?)\s*[×x*]\s*10(?:\^?([+-]?\d+)|(⁻?[⁰¹²³⁴⁵⁶⁷⁸⁹]+))$/;
/** No thousands begin with a zero. */
const LESS_THAN_ONE = /^[+-]?0[.,]\d+$/;
const WITH_SUFFIX = /^(.*\d)\s*(k|K|thousand|M|mn|millions?)$/;

/**
 * Reads a number as a person types it or as the product writes it: point or comma, thousands separators (also
 * thin spaces and apostrophes), "300k", "1.2 million", "1.98 × 10¹²", a true minus. Where the decimal sign could
 * be either, the reading of the screen comes first: "300,000" is three hundred thousand.
 *
 * @returns null if it is no number.
 * @example readTypedNumber('300,000') // => { value: 300_000, other: 300 }
 */
export function readTypedNumber(text: string): TypedNumber | null {
  const trimmed = text.trim().replace(/\u2212/g, '-');
  const power = POWER.exec(trimmed);
  if (power) return scaled(power[1], 10 ** exponentOf(power[2], power[3]));
  const suffixed = WITH_SUFFIX.exec(trimmed);
  if (suffixed) return scaled(suffixed[1], SUFFIXES[suffixed[2].replace('K', 'k')]);
  const signs = LESS_THAN_ONE.test(trimmed)
    ? ([trimmed.includes(',') ? ',' : '.'] as const)
    : numberSigns().decimal === '.'
      ? (['.', ','] as const)
      : ([',', '.'] as const);
  const readings = signs.map((sign) => parseNumber(trimmed, sign)).filter(Number.isFinite);
  if (readings.length === 0) return null;
  const [value, other = value] = readings;
  return { value, other: other === value ? null : other };
}

const exponentOf = (plain: string | undefined, raised: string): number =>
  plain === undefined
    ? Number([...raised].map((sign) => (sign === '⁻' ? '-' : SUPERSCRIPTS.indexOf(sign))).join(''))
    : Number(plain);

function scaled(text: string, by: number): TypedNumber | null {
  const read = readTypedNumber(text);
  if (read === null) return null;
  // 1.1 times a million is 1,100,000: without the error of the last binary digit.
  const times = (value: number): number => Number((value * by).toPrecision(15));
  return { value: times(read.value), other: read.other === null ? null : times(read.other) };
}

const EXACT = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 12 });

/** A number in full, as the screen writes it: "300,000". */
export const exactNumber = (value: number): string =>
  Math.abs(value) < 1e15 && (value === 0 || Math.abs(value) >= 1e-12)
    ? withSigns(EXACT.format(value)).replace('-', '\u2212')
    : withSigns(String(value)).replace('-', '\u2212');

/** A number as it is put into a field to be changed: with the decimal sign in use and no thousands. */
export const fieldText = (value: number): string => withSigns(String(value));

/**
 * What a typed text was understood as, to be shown beside it; null where the text says it just so.
 *
 * @example understoodAs('12,5') // => '= 12.5'
 */
export function understoodAs(text: string): string | null {
  const read = readTypedNumber(text);
  if (read === null) return null;
  const shown = exactNumber(read.value);
  if (read.other !== null) return `Read as ${shown}, not ${exactNumber(read.other)}`;
  const plain = numberSigns().decimal === '.' ? /^[+-]?\d+(\.\d*)?$/ : /^[+-]?\d+(,\d*)?$/;
  return plain.test(text.trim().replace('\u2212', '-')) ? null : `= ${shown}`;
}
