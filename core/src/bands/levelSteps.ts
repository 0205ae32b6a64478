import type { MetricReading } from '../domain/metric';
import { usableOf, type Series } from '../series/series';
import type { Spans } from '../summary/aggregate';
import type { Interval } from '../time/interval';
import { levelOf, type TargetBand } from './targetBand';
import type { LevelSpan } from './bandTime';

/** A value over a stretch of time; null where there is none. */
export interface ValueStep extends Interval {
  readonly value: number | null;
}

/**
 * The held samples of a series over spans: each holds until the next one, at most the longest allowed gap; an
 * amount over its logging interval. Steps follow one another, with the gaps between them, and add up to the
 * spans exactly.
 *
 * @param series must reach back to the sample that holds at the first start.
 * @example
 * stepsOfSamples(
 *   seriesOf([0, 60_000], [20, 30]),
 *   { kind: 'level', intervalMs: 60_000, maxGapMs: 90_000, rollover: null },
 *   { start: [30_000], end: [240_000], into: [0] },
 * ).map(({ value, start, end }) => [value, end - start]) // => [[20, 30_000], [30, 90_000], [null, 90_000]]
 */
export function stepsOfSamples(series: Series, reading: MetricReading, spans: Spans): ValueStep[] {
  const { t, v } = usableOf(series);
  const longest = reading.kind === 'amount' ? reading.intervalMs : reading.maxGapMs;
  const steps: ValueStep[] = [];
  let i = 0;
  for (let k = 0; k < spans.start.length; k++) {
    const to = spans.end[k];
    let at = spans.start[k];
    while (i > 0 && t[i] > at) i--;
    while (i + 1 < t.length && t[i + 1] <= at) i++;
    for (let j = i; j < t.length && t[j] < to && at < to; j++) {
      const end = Math.min(t[j] + longest, t[j + 1] ?? Infinity, to);
      if (end <= at) continue;
      const start = Math.max(t[j], at);
      if (start > at) steps.push({ start: at, end: start, value: null });
      steps.push({ start, end, value: v[j] });
      at = end;
    }
    if (at < to) steps.push({ start: at, end: to, value: null });
  }
  return steps;
}

/** Values of periods as steps over their spans. @param values one a period; null where there is none. */
export function stepsOfPeriods(values: readonly (number | null)[], spans: Spans): ValueStep[] {
  return Array.from(spans.start, (start, i) => ({ start, end: spans.end[i], value: values[spans.into[i]] }));
}

/** The part of steps inside an interval. @param steps in order of time. */
export function clippedSteps(steps: readonly ValueStep[], { start, end }: Interval): ValueStep[] {
  let low = 0;
  for (let high = steps.length; low < high;) {
    const middle = (low + high) >> 1;
    if (steps[middle].end <= start) low = middle + 1;
    else high = middle;
  }
  const inside: ValueStep[] = [];
  for (let i = low; i < steps.length && steps[i].start < end; i++) {
    const step = steps[i];
    if (step.start >= start && step.end <= end) inside.push(step);
    else inside.push({ ...step, start: Math.max(step.start, start), end: Math.min(step.end, end) });
  }
  return inside;
}

/** The levels of steps; neighbours on one level are joined, so that their times add up to those of the steps. */
export function levelsOfSteps(band: TargetBand | null, steps: readonly ValueStep[]): LevelSpan[] {
  const spans: { start: number; end: number; level: LevelSpan['level'] }[] = [];
  for (const { start, end, value } of steps) {
    const level = band === null ? 'nodata' : levelOf(band, value);
    const last = spans[spans.length - 1];
    if (last && last.level === level && last.end === start) last.end = end;
    else spans.push({ start, end, level });
  }
  return spans;
}
