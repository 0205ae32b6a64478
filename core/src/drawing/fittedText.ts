import type { Face } from './scene';
import { textWidth } from './textWidth';

/**
 * A text that is at most `width` px wide: cut at its end, with an ellipsis, where it is wider.
 * @example fittedText('Dryer 1, Quayside', 'strong', 13, 70) // => 'Dryer 1, Qua…'
 */
export function fittedText(text: string, face: Face, size: number, width: number): string {
  if (textWidth(text, face, size) <= width) return text;
  const letters = [...text];
  while (letters.length > 1 && textWidth(`${letters.join('')}…`, face, size) > width) letters.pop();
  return `${letters.join('')}…`;
}
