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
  // What spreadsheets write where a formula failed.
  '#n/a',
  '#na',
  '#ref!',
  '#div/0!',
  '#value!',
  '#name?',
  '#num!',
  '#null!',
  '#error!',
  '#error',
]);

/** Cells that say "nothing was measured". They are missing, never zero and never refused. */
export function isBlankCell(text: string): boolean {
  return text === '' || (text.length < 9 && BLANKS.has(text.trim().toLowerCase()));
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

/** The decimal sign under which more of the cells are numbers; a dot when both do equally well. */
export function recogniseDecimal(cells: readonly string[]): DecimalSign {
  const fits = (sign: DecimalSign): number =>
    cells.filter((cell) => !isBlankCell(cell) && !Number.isNaN(parseNumber(cell, sign))).length;
  const [comma, dot] = [fits(','), fits('.')];
  if (comma !== dot) return comma > dot ? ',' : '.';
  // "1,234" fits both; "0,123" and "12,5" are only decimals.
  const telling = cells.filter((cell) =>
    /^[+-]?(?:0|\d+),(?:\d{1,2}|\d{4,})$|^[+-]?0,\d+$/.test(cell.trim()),
  );
  return telling.length > 0 ? ',' : '.';
}
