import { levelOf, type Level, type TargetBand } from './targetBand';

/** A stretch of time that stayed on one level. */
export interface LevelSpan {
  readonly start: number;
  readonly end: number;
  readonly level: Level;
}

/**
 * Where a bucketed measure lay on which level; neighbours of one level are joined.
 *
 * @param edges  bucket i is [edges[i], edges[i + 1]).
 * @param values one a bucket; null where there is none.
 * @param until  nothing after it is told (what is still to come has no level).
 */
export function levelSpans(
  band: TargetBand,
  edges: readonly number[],
  values: readonly (number | null)[],
  until: number,
): LevelSpan[] {
  const spans: LevelSpan[] = [];
  values.forEach((value, i) => {
    const start = edges[i];
    const end = Math.min(edges[i + 1], until);
    if (end <= start) return;
    const level = levelOf(band, value);
    const before = spans[spans.length - 1];
    if (before && before.level === level && before.end === start) {
      spans[spans.length - 1] = { ...before, end };
    } else {
      spans.push({ start, end, level });
    }
  });
  return spans;
}

/** Total ms on each level. */
export function timeByLevel(spans: readonly LevelSpan[]): Record<Level, number> {
  const total: Record<Level, number> = { clear: 0, caution: 0, breach: 0, nodata: 0 };
  for (const span of spans) total[span.level] += span.end - span.start;
  return total;
}
