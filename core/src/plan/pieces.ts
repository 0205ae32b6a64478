import { dayOf } from '../series/dayCodec';
import type { Spans } from '../summary/aggregate';
import { QUARTER_MS } from '../rollup/rollupDay';
import { DAY_MS, HOUR_MS } from '../time/lengths';

/** Buckets of a stored day: its 96 quarter-hours or its 24 hours. */
export type RollupGrain = 'quarters' | 'hours';

/** An end of a span that needs samples, numbered by `raw`. */
export interface RawPiece {
  readonly start: number;
  readonly end: number;
  readonly raw: number;
}

/** Spans cut into whole quarters or hours from the rollups (`raw` = −1) and ends that need samples. Columns, in order. */
export interface Plan {
  readonly grain: RollupGrain;
  readonly start: ArrayLike<number>;
  readonly end: ArrayLike<number>;
  readonly into: ArrayLike<number>;
  /** null = none needs samples. */
  readonly raw: readonly number[] | null;
  readonly ends: readonly RawPiece[];
  readonly whole: { readonly start: number; readonly end: number } | null;
}

/** Most stretches of days on which ends may need samples; with more, all samples are read instead. */
const MAX_RAW_STRETCHES = 4;

/**
 * Plans how spans are computed: from whole hours if all of them lie on hours except the very end, otherwise
 * from quarter-hours. null = too many ends off the quarters; reading samples is cheaper.
 */
export function planPieces(spans: Spans): readonly Plan[] | null {
  const tail = tailOffHours(spans);
  if (tail === null) {
    const plan = planQuarters(spans);
    return plan && [plan];
  }
  const hours = wholePlan(tail === 0 ? spans : endingAt(spans, tail), 'hours');
  if (tail === 0) return [hours];
  const rest = planQuarters({
    start: [tail],
    end: [spans.end[spans.start.length - 1]],
    into: [spans.into[spans.start.length - 1]],
  });
  return rest && [hours, rest];
}

/**
 * Where the last span leaves the whole hours: 0 = nowhere; null = the spans do not lie on hours, or are so
 * few that reading quarters is cheaper.
 */
function tailOffHours({ start, end }: Spans): number | null {
  const last = start.length - 1;
  for (let i = 0; i <= last; i++) {
    if (start[i] % HOUR_MS !== 0 || (i < last && end[i] % HOUR_MS !== 0)) return null;
  }
  if (last < 0 || end[last] % HOUR_MS === 0) return 0;
  const tail = Math.floor(end[last] / HOUR_MS) * HOUR_MS;
  return tail - start[0] < LEAST_FOR_HOURS_MS ? null : tail;
}

/** Shorter windows with a tail are read once, by quarters. */
const LEAST_FOR_HOURS_MS = 3 * DAY_MS;

function endingAt({ start, end, into }: Spans, at: number): Spans {
  return { start, end: Array.from(end, (each) => Math.min(each, at)), into };
}

function wholePlan(spans: Spans, grain: RollupGrain): Plan {
  const whole = { start: Infinity, end: -Infinity };
  for (let i = 0; i < spans.start.length; i++) {
    if (spans.start[i] < whole.start) whole.start = spans.start[i];
    if (spans.end[i] > whole.end) whole.end = spans.end[i];
  }
  return { ...spans, grain, raw: null, ends: [], whole: whole.end > whole.start ? whole : null };
}

/** Splits spans at quarter-hours. null = too many ends off the quarters. */
function planQuarters(spans: Spans): Plan | null {
  if (onQuarters(spans)) return wholePlan(spans, 'quarters');
  const plan = { start: [] as number[], end: [] as number[], into: [] as number[], raw: [] as number[] };
  const ends: RawPiece[] = [];
  let wholeStart = Infinity;
  let wholeEnd = -Infinity;
  const add = (start: number, end: number, into: number, raw: number): void => {
    plan.start.push(start);
    plan.end.push(end);
    plan.into.push(into);
    plan.raw.push(raw);
    if (raw >= 0) ends.push({ start, end, raw });
  };
  for (let i = 0; i < spans.start.length; i++) {
    const [start, end, into] = [spans.start[i], spans.end[i], spans.into[i]];
    const from = Math.ceil(start / QUARTER_MS) * QUARTER_MS;
    const to = Math.floor(end / QUARTER_MS) * QUARTER_MS;
    if (from >= to) {
      if (end > start) add(start, end, into, ends.length);
      continue;
    }
    if (start < from) add(start, from, into, ends.length);
    add(from, to, into, -1);
    wholeStart = Math.min(wholeStart, from);
    wholeEnd = Math.max(wholeEnd, to);
    if (to < end) add(to, end, into, ends.length);
  }
  if (stretchesOf(ends).length > MAX_RAW_STRETCHES) return null;
  const grain = 'quarters';
  return { ...plan, grain, ends, whole: wholeEnd > wholeStart ? { start: wholeStart, end: wholeEnd } : null };
}

function onQuarters({ start, end }: Spans): boolean {
  for (let i = 0; i < start.length; i++) {
    if (start[i] % QUARTER_MS !== 0 || end[i] % QUARTER_MS !== 0) return false;
  }
  return true;
}

/** Raw pieces that are read together, with their stretch of time. */
export interface RawStretch {
  readonly from: number;
  readonly to: number;
  readonly pieces: readonly RawPiece[];
}

/** Joins raw pieces on the same or neighbouring days. */
export function stretchesOf(ends: readonly RawPiece[]): RawStretch[] {
  const stretches: { from: number; to: number; pieces: RawPiece[] }[] = [];
  for (const piece of ends) {
    const last = stretches[stretches.length - 1];
    if (last && dayOf(piece.start) <= dayOf(last.to) + DAY_MS) {
      last.to = Math.max(last.to, piece.end);
      last.pieces.push(piece);
    } else stretches.push({ from: piece.start, to: piece.end, pieces: [piece] });
  }
  return stretches;
}
