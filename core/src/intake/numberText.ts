export type DecimalSign = '.' | ',';

const BLANKS = new Set(['', '-', '–', 'n/a', 'na', 'nan', 'null', 'none', '#n/a']);

/** Cells that say "nothing was measured". They are missing, never zero and never refused. */
export function isBlankCell(text: string): boolean {
  return BLANKS.has(text.trim().toLowerCase());
}

/**
 * Reads a number as people write it: sign, thousands separators (space, thin space, apostrophe, or the
 * sign that is not the decimal one, in groups of three), decimals, exponent.
 *
 * @returns NaN if it is not a number.
 */
export function parseNumber(text: string, decimal: DecimalSign): number {
  const trimmed = text.trim().replace(/^\u2212/, '-');
  const thousands = decimal === '.' ? ',' : '.';
  const grouped = new RegExp(
    `^[+-]?\\d{1,3}(?:[\\s\\u2009\\u202f\\u00a0'’\\${thousands}]\\d{3})+(?:\\${decimal}\\d+)?$`,
  );
  const plain = new RegExp(`^[+-]?(?:\\d+(?:\\${decimal}\\d*)?|\\${decimal}\\d+)(?:[eE][+-]?\\d+)?$`);
  if (plain.test(trimmed)) return Number(trimmed.replace(decimal, '.'));
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
  return fits(',') > fits('.') ? ',' : '.';
}
