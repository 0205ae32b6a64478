import type { MetricKind } from '../domain/metric';
import type { Series } from '../series/series';
import { isCovered } from '../bands/targetBand';
import { plusPeriods, startOfPeriod } from '../time/periodStart';

/** Sources of the points on a control chart. */
export const CHART_POINTS = ['sample', 'hour', 'day'] as const;
export type ChartPoint = (typeof CHART_POINTS)[number];

/** The hour or day in progress, with its newest sample. */
export interface OpenPoint {
  readonly start: number;
  /** Level: value × ms held. Amount: the sum. */
  readonly total: number;
  readonly heldMs: number;
  readonly t: number;
  readonly v: number;
}

/** Start and end of the local hour or day that holds an instant. */
export function pointSpan(t: number, point: 'hour' | 'day', zone: string): { start: number; end: number } {
  const start = startOfPeriod(t, point, zone);
  return { start, end: plusPeriods(start, 1, point, zone) };
}

type Reading = { readonly kind: MetricKind; readonly maxGapMs: number };

/**
 * Adds one sample. A sample in a later hour or day finishes the one before.
 *
 * @returns the value of the finished point, NaN with too little coverage; null when none is finished. Level =
 * time-weighted mean, amount = sum.
 */
export function addToPoint(
  open: OpenPoint | null,
  t: number,
  v: number,
  point: 'hour' | 'day',
  reading: Reading,
  zone: string,
): { readonly open: OpenPoint; readonly finished: number | null } {
  const level = reading.kind === 'level';
  if (open && t < pointSpan(open.start, point, zone).end) {
    const held = Math.min(t - open.t, reading.maxGapMs);
    return {
      open: {
        start: open.start,
        total: open.total + (level ? open.v * held : v),
        heldMs: open.heldMs + held,
        t,
        v,
      },
      finished: null,
    };
  }
  const span = pointSpan(t, point, zone);
  const before = open && Math.max(0, Math.min(t, open.t + reading.maxGapMs) - span.start);
  const carried = before && open ? { total: level ? open.v * before : 0, heldMs: before } : null;
  return {
    open: {
      start: span.start,
      total: (carried?.total ?? 0) + (level ? 0 : v),
      heldMs: carried?.heldMs ?? 0,
      t,
      v,
    },
    finished: open ? finish(open, point, reading, zone) : null,
  };
}

function finish(open: OpenPoint, point: 'hour' | 'day', reading: Reading, zone: string): number {
  const { end } = pointSpan(open.start, point, zone);
  const held = Math.min(end - open.t, reading.maxGapMs);
  const heldMs = open.heldMs + held;
  if (!isCovered({ coverage: heldMs / (end - open.start) })) return NaN;
  return reading.kind === 'level' ? (open.total + open.v * held) / heldMs : open.total;
}

/** Whether a point comes right after (or is) another, without an empty hour or day between them. */
export function follows(before: OpenPoint, next: OpenPoint, point: 'hour' | 'day', zone: string): boolean {
  return next.start <= pointSpan(before.start, point, zone).end;
}

/**
 * The finished points of a series in order. A gap, a missing sample or a point with too little coverage is NaN:
 * what comes after it does not follow what came before.
 */
export function chartPoints(series: Series, point: ChartPoint, reading: Reading, zone: string): number[] {
  if (point === 'sample') {
    return Array.from(series.v).flatMap((v, i) =>
      i > 0 && series.t[i] - series.t[i - 1] > reading.maxGapMs ? [NaN, v] : [v],
    );
  }
  const points: number[] = [];
  let open: OpenPoint | null = null;
  for (let i = 0; i < series.t.length; i++) {
    if (Number.isNaN(series.v[i])) continue;
    const step = addToPoint(open, series.t[i], series.v[i], point, reading, zone);
    if (step.finished !== null) points.push(step.finished);
    if (open && !follows(open, step.open, point, zone)) points.push(NaN);
    open = step.open;
  }
  return points;
}
