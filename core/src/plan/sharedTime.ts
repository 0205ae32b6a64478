import type { MetricReading } from '../domain/metric';
import { firstAtOrAfter, usableOf, type Series } from '../series/series';
import type { Spans } from '../summary/aggregate';
import type { Interval } from '../time/interval';
import { differenceOf, intersectionOf, unionOf } from '../time/intervals';

/* A ratio is summed over the time in which both of its sides have data, as sets of intervals. */

/** A series with what it takes to read it. */
export interface ReadSeries {
  readonly series: Series;
  readonly reading: MetricReading;
}

/** Parts of spans: for each span the intervals inside it, disjoint and in order of time. */
export type PartsOfSpans = readonly (readonly Interval[])[];

/**
 * When a series has data: each usable sample holds until the next one, at most the longest allowed gap; an
 * amount covers its logging interval.
 *
 * @returns disjoint intervals in order of time.
 * @example
 * heldIntervals(seriesOf([0, 60_000, 300_000], [1, 2, 3]), {
 *   kind: 'level', intervalMs: 60_000, maxGapMs: 120_000, rollover: null,
 * }) // => [{ start: 0, end: 180_000 }, { start: 300_000, end: 420_000 }]
 */
export function heldIntervals(series: Series, reading: MetricReading): Interval[] {
  const { t } = usableOf(series);
  const longest = longestHold(reading);
  const out: { start: number; end: number }[] = [];
  for (let i = 0; i < t.length; i++) {
    const end = i + 1 < t.length ? Math.min(t[i] + longest, t[i + 1]) : t[i] + longest;
    const last = out[out.length - 1];
    if (last && last.end === t[i]) last.end = end;
    else out.push({ start: t[i], end });
  }
  return out;
}

function longestHold({ kind, intervalMs, maxGapMs }: MetricReading): number {
  return kind === 'amount' ? intervalMs : maxGapMs;
}

/** The parts of spans that lie in every one of several sets of intervals. */
export function partsInside(spans: Spans, sets: readonly (readonly Interval[])[]): PartsOfSpans {
  const shared = sets.reduce<readonly Interval[] | null>(
    (all, set) => (all === null ? set : intersectionOf(all, set)),
    null,
  );
  return Array.from(spans.start, (start, i) => {
    const span = [{ start, end: spans.end[i] }];
    return shared === null ? span : intersectionOf(touching(shared, span[0]), span);
  });
}

/** The intervals of a set that reach into an interval. */
function touching(set: readonly Interval[], { start, end }: Interval): readonly Interval[] {
  let low = 0;
  for (let high = set.length; low < high;) {
    const middle = (low + high) >> 1;
    if (set[middle].end <= start) low = middle + 1;
    else high = middle;
  }
  let last = low;
  while (last < set.length && set[last].start < end) last++;
  return set.slice(low, last);
}

/**
 * Removes the logging intervals of an amount that lie only partly in the parts: half an hour's amount cannot be
 * told from the other half. A span's own edges cut no interval.
 */
export function withoutCutAmounts(
  parts: PartsOfSpans,
  spans: Spans,
  { series, reading }: ReadSeries,
): PartsOfSpans {
  const { t } = usableOf(series);
  return parts.map((inside, k) => {
    if (inside.length === 0) return inside;
    const cut: Interval[] = [];
    let j = 0;
    // Of the intervals that begin earlier only the last can reach into the span.
    const first = Math.max(0, firstAtOrAfter(t, spans.start[k]) - 1);
    for (let i = first; i < t.length && t[i] < spans.end[k]; i++) {
      const end = Math.min(t[i] + reading.intervalMs, t[i + 1] ?? Infinity, spans.end[k]);
      const start = Math.max(t[i], spans.start[k]);
      if (end <= start) continue;
      while (j < inside.length && inside[j].end <= start) j++;
      const part = inside[j];
      if (!part || part.start >= end || (part.start <= start && part.end >= end)) continue;
      cut.push({ start, end });
    }
    return cut.length === 0 ? inside : differenceOf(inside, unionOf(cut));
  });
}

/**
 * The parts of spans in which all of several series have data, without logging intervals of amounts that only
 * some of that time covers. Amounts that count by share do so here too.
 */
export function sharedParts(spans: Spans, all: readonly ReadSeries[]): PartsOfSpans {
  let parts = partsInside(
    spans,
    all.map(({ series, reading }) => heldIntervals(series, reading)),
  );
  const amounts = all.filter(({ reading }) => reading.kind === 'amount' && !reading.isSpread);
  for (let before: PartsOfSpans | null = null; before !== parts;) {
    before = parts;
    for (const each of amounts) parts = sameOr(parts, withoutCutAmounts(parts, spans, each));
  }
  return parts;
}

/** The earlier of two equal sets, so that a loop sees that nothing changes any more. */
function sameOr(before: PartsOfSpans, after: PartsOfSpans): PartsOfSpans {
  return after.every((part, i) => part === before[i]) ? before : after;
}

/** Parts of spans as spans of the same periods. */
export function spansOfParts(parts: PartsOfSpans, { into }: Spans): Spans {
  const out = parts.flatMap((inside, i) => inside.map(({ start, end }) => ({ start, end, into: into[i] })));
  return {
    start: out.map(({ start }) => start),
    end: out.map(({ end }) => end),
    into: out.map((each) => each.into),
  };
}
