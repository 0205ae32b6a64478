import { formatNumber } from '../../format/format';
import { textWidth } from '../textWidth';
import { PLOT_NUMBER } from './trendLayout';

/** A number at a point of a line, px; centred on `x`, with its baseline at `y`. */
export interface PointLabel {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly text: string;
}

/** The known points of a line, with their positions in px. */
export interface LabelledLine {
  readonly key: string;
  readonly points: readonly { readonly x: number; readonly y: number; readonly value: number }[];
}

const LINE = 14;
const ABOVE = 6;
const BELOW = 15;
/** With more points than this, only the last, the highest and the lowest are labelled. */
const MAX_POINTS = 40;

/**
 * Numbers at the points of lines, as many as fit without overlapping: first the last, the highest and the
 * lowest of each line, then the others in order of time. A number is above its point, or below if there is no
 * room above.
 *
 * @param lines the most important line first.
 */
export function labelPoints(
  lines: readonly LabelledLine[],
  decimals: number,
  width: number,
  height: number,
): PointLabel[] {
  const placed: PointLabel[] = [];
  const half = (text: string): number => textWidth(text, 'medium', PLOT_NUMBER) / 2;
  const free = (x: number, y: number, text: string): boolean =>
    x - half(text) >= 0 &&
    x + half(text) <= width &&
    y - LINE + 3 >= 0 &&
    y <= height &&
    placed.every(
      (each) => Math.abs(each.y - y) >= LINE || Math.abs(each.x - x) >= half(each.text) + half(text) + 3,
    );
  const place = (line: LabelledLine, i: number): void => {
    const key = `${line.key} ${i}`;
    if (placed.some((each) => each.key === key)) return;
    const { x, y, value } = line.points[i];
    const text = formatNumber(value, decimals);
    // Moved inwards from the edge as far as needed.
    const at = Math.min(Math.max(x, half(text)), width - half(text));
    for (const base of [y - ABOVE, y + BELOW])
      if (free(at, base, text)) {
        placed.push({ key, x: at, y: base, text });
        return;
      }
  };
  for (const line of lines) for (const i of foremost(line.points)) place(line, i);
  for (const line of lines)
    if (line.points.length <= MAX_POINTS) line.points.forEach((_, i) => place(line, i));
  return placed;
}

/** Which points come first: the last, the highest, the lowest. */
function foremost(points: LabelledLine['points']): number[] {
  if (points.length === 0) return [];
  let high = 0;
  let low = 0;
  points.forEach(({ value }, i) => {
    if (value > points[high].value) high = i;
    if (value < points[low].value) low = i;
  });
  return [points.length - 1, high, low];
}
