import { tenths } from './tenths';

/**
 * Path of a line in px, interrupted at gaps.
 *
 * Not d3-shape's line, which takes points and calls accessors for each: over columns this is twice as fast, and
 * a trend redraws it with every frame. A test compares the two.
 */
export function linePath(
  t: readonly number[],
  v: readonly (number | null)[],
  x: (t: number) => number,
  y: (v: number) => number,
): string {
  let path = '';
  let pen = 'M';
  for (let i = 0; i < t.length; i++) {
    const value = v[i];
    if (value === null) {
      pen = 'M';
      continue;
    }
    path += `${pen}${tenths(x(t[i]))} ${tenths(y(value))}`;
    pen = 'L';
  }
  return path;
}

/** The pieces of a line between two heights of the plot (px), which are drawn in another colour. */
export function linePathWithin(
  t: readonly number[],
  v: readonly (number | null)[],
  x: (t: number) => number,
  y: (v: number) => number,
  top: number,
  bottom: number,
): string {
  let path = '';
  let open = false;
  for (let i = 1; i < t.length; i++) {
    const [before, value] = [v[i - 1], v[i]];
    const [a, b] = [before === null ? NaN : y(before), value === null ? NaN : y(value)];
    // Written so that NaN ends give no piece.
    if (!(Math.max(a, b) >= top && Math.min(a, b) <= bottom)) {
      open = false;
      continue;
    }
    if (!open) path += `M${tenths(x(t[i - 1]))} ${tenths(a)}`;
    path += `L${tenths(x(t[i]))} ${tenths(b)}`;
    open = true;
  }
  return path;
}
