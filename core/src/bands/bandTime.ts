import { amount, shape, type TypeOf } from '../schemas/shape';
import { levelOf, levelSchema, SEVERITY, type Level, type TargetBand } from './targetBand';

/** A stretch of time on one level. */
export const levelSpan = shape({ start: amount(), end: amount(), level: levelSchema });
export type LevelSpan = TypeOf<typeof levelSpan>;

/**
 * The levels of a bucketed measure over time; neighbouring buckets on one level are joined.
 *
 * @param edges bucket i is [edges[i], edges[i + 1]).
 * @param values one a bucket; null where there is none.
 * @param until the end of the last span; the future has no level.
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

/**
 * Total ms on each level.
 * @example timeByLevel([{ start: 0, end: 60_000, level: 'breach' }]) // => { clear: 0, caution: 0, breach: 60_000, nodata: 0 }
 */
export function timeByLevel(spans: readonly LevelSpan[]): Record<Level, number> {
  const total: Record<Level, number> = { clear: 0, caution: 0, breach: 0, nodata: 0 };
  for (const span of spans) total[span.level] += span.end - span.start;
  return total;
}

/**
 * Merges the spans of several measures: at each moment the most serious level holds, so that simultaneous
 * breaches count once. Uncovered moments are left out; the result is in order of time.
 */
export function worstSpans(spans: readonly LevelSpan[]): LevelSpan[] {
  const cuts = [...new Set(spans.flatMap(({ start, end }) => [start, end]))].sort((a, b) => a - b);
  const worst: LevelSpan[] = [];
  for (let i = 0; i + 1 < cuts.length; i++) {
    const [start, end] = [cuts[i], cuts[i + 1]];
    const levels = spans.filter((span) => span.start <= start && span.end >= end).map(({ level }) => level);
    if (levels.length === 0) continue;
    const level = levels.reduce((a, b) => (SEVERITY[b] < SEVERITY[a] ? b : a));
    const before = worst[worst.length - 1];
    if (before && before.level === level && before.end === start)
      worst[worst.length - 1] = { ...before, end };
    else worst.push({ start, end, level });
  }
  return worst;
}
