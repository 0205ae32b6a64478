import { ADVANCE_WIDTHS, UNITS_PER_EM } from './advanceWidths';
import type { Face } from './scene';

/**
 * How wide a text is in one of the shipped fonts, px: the sum of its letters' advance widths. Pairs that the font moves
 * nearer or apart make it differ by a few hundredths; a letter that the font lacks counts as wide as it is high.
 *
 * @param size px.
 * @example textWidth('1,204', 'medium', 12) // => 24.336
 */
export function textWidth(text: string, face: Face, size: number): number {
  let units = 0;
  for (const letter of text) units += widthOf(letter, face);
  return (units * size) / UNITS_PER_EM;
}

function widthOf(letter: string, face: Face): number {
  const { ranges, signs } = ADVANCE_WIDTHS[face];
  const code = letter.codePointAt(0)!;
  for (const { from, widths } of ranges) {
    if (code >= from && code < from + widths.length) return widths[code - from];
  }
  return signs[letter] ?? UNITS_PER_EM;
}
