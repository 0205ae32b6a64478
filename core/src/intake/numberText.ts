export type DecimalSign = '.' | ',';

const BLANKS = new Set([
  '',
  '-',
  '–',
  '—',
  '--',
  '.',
  '?',
  'n/a',
  'na',
  'n.a.',
  'nan',
  'null',
  'none',
  'nil',
  'missing',
]);

/** What spreadsheets write where a formula failed. */
const ERRORS = new Set([
  '#n/a',
  '#na',
  '#ref!',
  '#div/0!',
  '#value!',
  '#name?',
  '#num!',
  '#null!',
  '#spill!',
  '#calc!',
  '#error!',
  '#error',
]);

/** Cells that say "nothing was measured". They are missing, never zero and never refused. */
export function isBlankCell(text: string): boolean {
  return text === '' || (text.length < 9 && BLANKS.has(text.trim().toLowerCase()));
}

/** Cells in which a formula failed: missing like blank ones, but counted as errors. */
export function isErrorCell(text: string): boolean {
  return text.length < 12 && text.trimStart().startsWith('#') && ERRORS.has(text.trim().toLowerCase());
}

const SPACES = '\\s\\u2009\\u202f\\u00a0';
const patternsOf = (decimal: DecimalSign) => {
  const thousands = decimal === '.' ? ',' : '.';
  return {
    thousands,
    grouped: new RegExp(`^[+-]?\\d{1,3}(?:[${SPACES}'’\\${thousands}]\\d{3})+(?:\\${decimal}\\d+)?$`),
    plain: new RegExp(`^[+-]?(?:\\d+(?:\\${decimal}\\d*)?|\\${decimal}\\d+)(?:[eE][+-]?\\d+)?$`),
  };
};
const PATTERNS = { '.': patternsOf('.'), ',': patternsOf(',') };

/**
 * Reads a number as people write it: sign, thousands separators (space, thin space, apostrophe, or the
 * sign that is not the decimal one, in groups of three), decimals, exponent.
 *
 * @returns NaN if it is not a number.
 * @example parseNumber('1.234,5', ',') // => 1234.5
 */
export function parseNumber(text: string, decimal: DecimalSign): number {
  const { thousands, grouped, plain } = PATTERNS[decimal];
  const trimmed = text.trim().replace(/^\u2212/, '-');
  if (plain.test(trimmed)) return Number(decimal === ',' ? trimmed.replace(',', '.') : trimmed);
  if (grouped.test(trimmed)) {
    return Number(
      trimmed
        .replace(/[^\d+\-.,]/g, '')
        .replaceAll(thousands, '')
        .replace(decimal, '.'),
    );
  }
  return NaN;
}

/**
 * Reads the numbers that nearly all cells of large files are: digits, at most one decimal sign, a minus.
 *
 * @returns NaN for anything else, also for numbers written in another way.
 */
export function plainNumber(cell: string, decimal: DecimalSign): number {
  const sign = decimal === '.' ? 46 : 44;
  const n = cell.length;
  let seen = false;
  let i = cell.charCodeAt(0) === 45 ? 1 : 0;
  if (i === n || n > 25) return NaN;
  for (; i < n; i++) {
    const code = cell.charCodeAt(i);
    if (code >= 48 && code <= 57) continue;
    if (code !== sign || seen || n === 1) return NaN;
    seen = true;
  }
  return Number(seen && sign === 44 ? cell.replace(',', '.') : cell);
}

/** A number and what stands beside it in the cell: "12.5 %", "€ 1,250", "21 °C". */
export interface SignedNumber {
  readonly value: number;
  /** As written; null when the number stands alone. */
  readonly sign: string | null;
}

const CURRENCY = String.raw`\p{Sc}|CHF|EUR|USD|GBP|Fr\.|kr\.?`;
const DIGITS = String.raw`(?:\d[\d.,'’\s\u2009\u202f\u00a0]*|[.,]\d+)(?:[eE][+-]?\d+)?`;
const BESIDE = new RegExp(
  String.raw`^(?<open>\()?\s*(?<minus>[+\-\u2212])?\s*(?<before>${CURRENCY})?\s*(?<inner>[+\-\u2212])?(?<digits>${DIGITS})\s*(?<after>%|‰|${CURRENCY}|[\p{L}°µ][\p{L}\d°µ/²³·*]{0,7})?\s*(?<trailing>-)?\s*(?<close>\))?$`,
  'u',
);

/**
 * Reads a number with a percent or currency sign or a short unit beside it, in parentheses (then negative, as
 * book-keeping writes it), or with the minus behind it. "12 %" is 12 with the sign "%", not 0.12.
 *
 * @returns null if it is no number.
 * @example readSignedNumber('(1,250.50)', '.') // => { value: -1250.5, sign: null }
 */
export function readSignedNumber(text: string, decimal: DecimalSign): SignedNumber | null {
  const alone = parseNumber(text, decimal);
  if (!Number.isNaN(alone)) return { value: alone, sign: null };
  if (text.length > 40 || !/\d/.test(text)) return null;
  const parts = BESIDE.exec(text.trim())?.groups;
  if (!parts || Boolean(parts.open) !== Boolean(parts.close)) return null;
  if ([parts.open, parts.minus, parts.inner, parts.trailing].filter(Boolean).length > 1) return null;
  if (parts.before && parts.after) return null;
  const size = parseNumber(parts.digits.trim(), decimal);
  if (Number.isNaN(size)) return null;
  const negative =
    Boolean(parts.open ?? parts.trailing) || /[-\u2212]/.test(parts.minus ?? parts.inner ?? '');
  return { value: negative ? -size : size, sign: parts.before ?? parts.after ?? null };
}

/** Under which decimal sign a cell is a number only: "1.5" and "1,5" tell, "12" and "1,234" do not. */
export function tellingDecimal(cell: string): DecimalSign | null {
  const comma = readSignedNumber(cell, ',') !== null;
  const dot = readSignedNumber(cell, '.') !== null;
  if (comma !== dot) return comma ? ',' : '.';
  return comma && /^[^\d]*0,\d/.test(cell) ? ',' : null;
}

/** The decimal sign under which more of the cells are numbers; a dot when both do equally well. */
export function recogniseDecimal(cells: readonly string[]): DecimalSign {
  let commas = 0;
  for (const cell of cells) {
    if (isBlankCell(cell)) continue;
    const told = tellingDecimal(cell);
    if (told !== null) commas += told === ',' ? 1 : -1;
  }
  return commas > 0 ? ',' : '.';
}
