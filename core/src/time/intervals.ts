import type { Interval } from './interval';

/* Sets of moments as lists of half-open intervals: disjoint, not touching, in order of time. */

/**
 * Union of intervals.
 * @example unionOf([{ start: 0, end: 5 }, { start: 3, end: 8 }]) // => [{ start: 0, end: 8 }]
 */
export function unionOf(intervals: readonly Interval[]): Interval[] {
  const sorted = intervals.filter(({ start, end }) => end > start).sort((a, b) => a.start - b.start);
  const out: { start: number; end: number }[] = [];
  for (const { start, end } of sorted) {
    const last = out[out.length - 1];
    if (last && start <= last.end) last.end = Math.max(last.end, end);
    else out.push({ start, end });
  }
  return out;
}

/**
 * Intersection of two sets.
 * @example intersectionOf([{ start: 0, end: 5 }], [{ start: 3, end: 8 }]) // => [{ start: 3, end: 5 }]
 */
export function intersectionOf(a: readonly Interval[], b: readonly Interval[]): Interval[] {
  const out: Interval[] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const start = Math.max(a[i].start, b[j].start);
    const end = Math.min(a[i].end, b[j].end);
    if (end > start) out.push({ start, end });
    if (a[i].end < b[j].end) i++;
    else j++;
  }
  return out;
}

/**
 * Difference: what is in `a` but not in `b`.
 * @example differenceOf([{ start: 0, end: 5 }], [{ start: 3, end: 8 }]) // => [{ start: 0, end: 3 }]
 */
export function differenceOf(a: readonly Interval[], b: readonly Interval[]): Interval[] {
  const out: Interval[] = [];
  let j = 0;
  for (const { start, end } of a) {
    let at = start;
    while (j > 0 && b[j - 1].end > start) j--;
    for (; j < b.length && b[j].start < end; j++) {
      if (b[j].end <= at) continue;
      if (b[j].start > at) out.push({ start: at, end: b[j].start });
      at = Math.max(at, b[j].end);
    }
    if (at < end) out.push({ start: at, end });
  }
  return out;
}

/**
 * Length of all intervals together, ms. Overlaps count once.
 * @example lengthOf([{ start: 0, end: 5 }, { start: 10, end: 12 }]) // => 7
 */
export function lengthOf(intervals: readonly Interval[]): number {
  return unionOf(intervals).reduce((total, { start, end }) => total + end - start, 0);
}
