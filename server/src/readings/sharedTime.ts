import type { Interval, Series } from '@vivid-beacon/core';
import {
  heldIntervals,
  partsInside,
  QUARTER_MS,
  spansOfParts,
  withoutCutAmounts,
  type Aggregates,
  type PartsOfSpans,
  type RollupColumn,
  type Spans,
} from '@vivid-beacon/core/src/aggregation';
import { DAY_MS, unionOf } from '@vivid-beacon/core';
import { readingOf } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import type { ReadContext } from './readContext';
import { periodsOfReference, readReferenceValues } from './reference';

/** How sharedSpans reads. */
export interface TimeReads {
  readonly aggregate: (
    context: ReadContext,
    rows: readonly MetricRow[],
    spans: Spans,
    size: number,
    wanted: ReadonlySet<RollupColumn>,
  ) => Promise<{ aggregates: ReadonlyMap<string, Aggregates> }>;
  readonly samples: (
    context: ReadContext,
    rows: readonly MetricRow[],
    spans: Spans,
  ) => Promise<ReadonlyMap<string, Series>>;
}

/** Part of span `of`. */
interface Piece extends Interval {
  readonly of: number;
}

const HELD_ONLY: ReadonlySet<RollupColumn> = new Set(['heldMs']);
/** Pieces are cut finer until rollups say that all or none of the time is covered. */
const GRAINS = [null, DAY_MS, QUARTER_MS];

/**
 * The parts of spans in which all metrics have data. Rollups decide where they say "all" or "none"; samples are
 * read only around the edges of gaps.
 *
 * @param rows samples, reference series and derived metrics with samples of their own. @returns the same object
 * if all of the time is shared.
 */
export async function sharedSpans(
  context: ReadContext,
  rows: readonly MetricRow[],
  spans: Spans,
  reads: TimeReads,
): Promise<Spans> {
  const sampled = rows.filter(({ origin }) => origin === 'samples');
  const others = rows.filter(({ origin }) => origin !== 'samples');
  const known = await Promise.all(others.map((row) => intervalsOf(context, row, spans, reads)));
  let parts = await partsOfSampled(context, sampled, spans, reads);
  if (known.length > 0) {
    const inside = partsInside(spans, known);
    parts = parts.map((part, i) => intersectionWith(part, inside[i]));
  }
  const amounts = rows.filter(
    ({ kind, origin, cut }) => kind === 'amount' && cut === 'start' && origin !== 'reference',
  );
  parts = await wholeAmounts(context, amounts, parts, spans, reads);
  const untouched = parts.every(
    (part, i) => part.length === 1 && part[0].start === spans.start[i] && part[0].end === spans.end[i],
  );
  return untouched ? spans : spansOfParts(parts, spans);
}

const intersectionWith = (a: readonly Interval[], b: readonly Interval[]): readonly Interval[] =>
  partsInside({ start: a.map(({ start }) => start), end: a.map(({ end }) => end), into: a.map(() => 0) }, [
    b,
  ]).flat();

/** When a reference series or a derived metric has values. */
async function intervalsOf(
  context: ReadContext,
  row: MetricRow,
  spans: Spans,
  reads: TimeReads,
): Promise<readonly Interval[]> {
  if (row.origin === 'reference')
    return unionOf(periodsOfReference(await readReferenceValues(context.db, row.id), row));
  return heldIntervals((await reads.samples(context, [row], spans)).get(row.id)!, readingOf(row));
}

async function partsOfSampled(
  context: ReadContext,
  rows: readonly MetricRow[],
  spans: Spans,
  reads: TimeReads,
): Promise<PartsOfSpans> {
  let open: Piece[] = Array.from(spans.start, (start, of) => ({ start, end: spans.end[of], of }));
  const kept: Piece[] = [];
  if (rows.length === 0) kept.push(...open.splice(0));
  for (const grain of GRAINS) {
    if (open.length === 0) break;
    const pieces = grain === null ? open : open.flatMap((piece) => cutAt(piece, grain));
    const each = { ...asSpans(pieces), into: pieces.map((_, i) => i) };
    const { aggregates } = await reads.aggregate(context, rows, each, pieces.length, HELD_ONLY);
    open = [];
    pieces.forEach((piece, i) => {
      const length = piece.end - piece.start;
      const held = rows.map(({ id }) => aggregates.get(id)!.heldMs[i]);
      if (held.every((ms) => ms >= length)) kept.push(piece);
      else if (held.every((ms) => ms > 0)) open.push(piece);
    });
  }
  for (const stretch of stretchesOfPieces(open)) {
    const near = asSpans(stretch);
    const series = await reads.samples(context, rows, near);
    const inside = partsInside(
      near,
      rows.map((row) => heldIntervals(series.get(row.id)!, readingOf(row))),
    );
    inside.forEach((part, i) => kept.push(...part.map((each) => ({ ...each, of: stretch[i].of }))));
  }
  const bySpan: Interval[][] = Array.from(spans.start, () => []);
  for (const { start, end, of } of kept) bySpan[of].push({ start, end });
  return bySpan.map(unionOf);
}

/** Reads the amounts around the edges that gaps have cut, and removes logging intervals that lie across them. */
async function wholeAmounts(
  context: ReadContext,
  rows: readonly MetricRow[],
  parts: PartsOfSpans,
  spans: Spans,
  reads: TimeReads,
): Promise<PartsOfSpans> {
  if (rows.length === 0) return parts;
  const longest = Math.max(...rows.map(({ intervalMs }) => intervalMs));
  const seen = new Set<number>();
  for (let current = parts; ;) {
    const edges = current.flatMap((part, of) =>
      part
        .flatMap(({ start, end }) => [start, end])
        .filter((at) => at !== spans.start[of] && at !== spans.end[of] && !seen.has(at)),
    );
    if (edges.length === 0) return current;
    edges.forEach((at) => seen.add(at));
    const around = edges
      .sort((a, b) => a - b)
      .map((at) => ({ start: at - longest, end: at + longest, of: 0 }));
    for (const stretch of stretchesOfPieces(around)) {
      const series = await reads.samples(context, rows, asSpans(stretch));
      for (const row of rows)
        current = withoutCutAmounts(current, spans, { series: series.get(row.id)!, reading: readingOf(row) });
    }
  }
}

function cutAt({ start, end, of }: Piece, grain: number): Piece[] {
  const out: Piece[] = [];
  for (let from = start; from < end;) {
    const to = Math.min(end, (Math.floor(from / grain) + 1) * grain);
    out.push({ start: from, end: to, of });
    from = to;
  }
  return out;
}

function asSpans(pieces: readonly Piece[]): Spans {
  return {
    start: pieces.map(({ start }) => start),
    end: pieces.map(({ end }) => end),
    into: pieces.map(() => 0),
  };
}

/** More reads than this are dearer than one of everything. */
const MAX_STRETCHES = 8;

/** Pieces in order of time, those within a day of one another together. */
function stretchesOfPieces(pieces: readonly Piece[]): Piece[][] {
  const inOrder = [...pieces].sort((a, b) => a.start - b.start);
  const stretches: Piece[][] = [];
  let reach = -Infinity;
  for (const piece of inOrder) {
    if (piece.start > reach + DAY_MS) stretches.push([]);
    stretches[stretches.length - 1].push(piece);
    reach = Math.max(reach, piece.end);
  }
  return stretches.length > MAX_STRETCHES ? [inOrder] : stretches;
}
