import { ringPath } from '../drawing/gaugeGeometry';
import type { HitRegion, Mark, PlacedText, Scene } from '../drawing/scene';
import { ringOpacity, shareText } from '../drawing/ringScene';
import { valueAxis } from '../drawing/valueAxis';
import { heightsOf, type BreakdownData, type BreakdownPart } from './breakdownData';
import { referenceWindowName } from './changeWords';
import { TEXT, written } from './scene/words';

/* A breakdown of its whole window: as a strip, as a ring, as columns side by side. */

/** Parts of the keys of hit regions that say what a tap does. */
export const BREAKDOWN_HITS = { drawn: 'drawn ', pick: 'pick ', row: 'row ', value: 'value ' } as const;

const STRIP = 44;
const GAP = 2;
/** Largest width of a ring, px, and half the gap between two of its parts, degrees. */
const MAX_RING = 230;
const HALF_GAP = 0.6;
/** Least width of a part that has room for its number, px. */
export const ROOM_FOR_NUMBER = 18;

/** The tone of a part: that of its place; others and the rest have none. */
export const toneOf = ({ kind }: BreakdownPart, i: number) =>
  kind === 'group'
    ? ({ fill: 'sea', fillOpacity: ringOpacity(i) } as const)
    : kind === 'others'
      ? ({ fill: 'well', stroke: 'line2' } as const)
      : ({ fill: 'sheet', stroke: 'line2', dash: '3 2.5' } as const);

export const isFocused = ({ of }: BreakdownPart, focus: string | null): boolean =>
  focus !== null && of?.assetId === focus;

/** One strip, divided by share; under it the window before, thinner. */
export function strip({ parts, readout }: BreakdownData, width: number, focus: string | null): Scene {
  const marks: Mark[] = [];
  const numbers: PlacedText[] = [];
  const hits: HitRegion[] = [];
  let x = 0;
  parts.forEach((part, i) => {
    const wide = (part.share ?? 0) * width;
    if (wide <= 0) return;
    const box = { x, y: 0, width: Math.max(0.5, wide - GAP), height: STRIP };
    marks.push({ kind: 'rect', key: part.key, ...box, ...toneOf(part, i) });
    if (isFocused(part, focus))
      marks.push({ kind: 'rect', key: `${part.key} focus`, ...box, stroke: 'ink', strokeWidth: 3 });
    hits.push({
      key: BREAKDOWN_HITS.drawn + part.key,
      spoken: `${part.name} ${shareText(part.share!)}`,
      shape: { kind: 'box', ...box },
    });
    if (wide >= ROOM_FOR_NUMBER)
      numbers.push({ x: x + (wide - GAP) / 2, y: STRIP / 2 + 4, text: String(i + 1) });
    x += wide;
  });
  marks.push(numberMark(numbers));
  const before = sharesBefore(parts);
  if (before === null) return { width, height: STRIP, marks, hits, spoken: '' };
  let from = 0;
  parts.forEach((part, i) => {
    const wide = before[i] * width;
    if (wide > 0)
      marks.push({
        kind: 'rect',
        key: `${part.key} before`,
        x: from,
        y: STRIP + 4,
        width: Math.max(0.5, wide - GAP),
        height: 8,
        ...toneOf(part, i),
      });
    from += wide;
  });
  marks.push(
    written([referenceWindowName(readout)], {
      key: 'before',
      x: 0,
      y: STRIP + 14,
      style: TEXT.caption,
      ink: 'ink2',
    }),
  );
  return { width, height: STRIP + 14 + TEXT.caption.lineHeight, marks, hits, spoken: '' };
}

/** Shares of the parts in the reference window; null where nothing is known of it. */
function sharesBefore(parts: readonly BreakdownPart[]): readonly number[] | null {
  const before = parts.map(({ previous, picked }) => (picked ? Math.max(0, previous ?? 0) : 0));
  const sum = before.reduce((a, b) => a + b, 0);
  return sum === 0 ? null : before.map((each) => each / sum);
}

/** A ring of shares, from straight up, clockwise; inside it a thin one of the window before. */
export function shareRing({ parts, readout }: BreakdownData, width: number, focus: string | null): Scene {
  const size = Math.min(width, MAX_RING);
  const [cx, r] = [width / 2, size / 2];
  const [outer, inner] = [r - 2, r * 0.62];
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  const numbers: PlacedText[] = [];
  eachArc(
    parts.map(({ share }) => share ?? 0),
    (i, from, to) => {
      const part = parts[i];
      const d = ringPath(cx, r, outer, inner, ...apart(from, to));
      marks.push({ kind: 'path', key: part.key, d, ...toneOf(part, i) });
      if (isFocused(part, focus))
        marks.push({ kind: 'path', key: `${part.key} focus`, d, stroke: 'ink', strokeWidth: 3 });
      hits.push({
        key: BREAKDOWN_HITS.drawn + part.key,
        spoken: `${part.name} ${shareText(part.share!)}`,
        shape: { kind: 'ring', cx, cy: r, inner, outer, from, to },
      });
      const middle = (outer + inner) / 2;
      if (((to - from) / 360) * 2 * Math.PI * middle < ROOM_FOR_NUMBER) return;
      const angle = (((from + to) / 2) * Math.PI) / 180;
      numbers.push({
        x: cx + middle * Math.sin(angle),
        y: r - middle * Math.cos(angle) + 4,
        text: String(i + 1),
      });
    },
  );
  marks.push(numberMark(numbers));
  const before = sharesBefore(parts);
  if (before === null) return { width, height: size, marks, hits, spoken: '' };
  eachArc(before, (i, from, to) =>
    marks.push({
      kind: 'path',
      key: `${parts[i].key} before`,
      d: ringPath(cx, r, inner - 5, inner - 13, ...apart(from, to)),
      ...toneOf(parts[i], i),
    }),
  );
  marks.push(
    written([`inside: ${referenceWindowName(readout)}`], {
      key: 'before',
      x: cx,
      y: size + 4,
      style: TEXT.caption,
      ink: 'ink2',
      anchor: 'middle',
    }),
  );
  return { width, height: size + 4 + TEXT.caption.lineHeight, marks, hits, spoken: '' };
}

/** Arcs of shares one after another, in degrees; those of nothing are left out. */
function eachArc(shares: readonly number[], put: (i: number, from: number, to: number) => void): void {
  let from = 0;
  shares.forEach((share, i) => {
    const to = from + share * 360;
    if (share > 0) put(i, from, to);
    from = to;
  });
}

/** An arc with half of the gap taken off both ends. */
const apart = (from: number, to: number): readonly [number, number] => [
  from + HALF_GAP,
  Math.max(from + HALF_GAP + 0.1, to - HALF_GAP),
];

/** The numbers that parts have in the list, so that no part is known by its tone alone. */
export const numberMark = (words: readonly PlacedText[]): Mark => ({
  kind: 'text',
  key: 'numbers',
  words,
  face: TEXT.caption.face,
  size: TEXT.caption.size,
  ink: 'ink',
  outline: 'sheet',
  anchor: 'middle',
});

/** A column for each part, with the window before as a line across it; numbered as in the list. */
export function bars(data: BreakdownData, width: number, height: number, focus: string | null): Scene {
  const { parts, beside = [] } = data;
  const drawn = parts.flatMap((part, i) => (part.picked && part.value !== null ? [{ part, i }] : []));
  const all = [...heightsOf(data), ...beside];
  const bottom = height - 18;
  const axis = valueAxis(null, null, [0, ...all], [bottom, 6]);
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  const each = Math.min(90, width / Math.max(1, drawn.length));
  drawn.forEach(({ part, i }, k) => {
    const [top, low] = [axis.at(Math.max(0, part.value!)), axis.at(Math.min(0, part.value!))];
    const box = { x: k * each + each * 0.14, y: top, width: each * 0.72, height: Math.max(0.5, low - top) };
    marks.push({ kind: 'rect', key: part.key, ...box, ...toneOf(part, i) });
    if (isFocused(part, focus))
      marks.push({ kind: 'rect', key: `${part.key} focus`, ...box, stroke: 'ink', strokeWidth: 3 });
    if (part.previous !== null) {
      const d = `M${box.x - 3} ${axis.at(part.previous)}h${box.width + 6}`;
      marks.push({ kind: 'path', key: `${part.key} before`, d, stroke: 'ink', strokeWidth: 1.5 });
    }
    hits.push({
      key: BREAKDOWN_HITS.drawn + part.key,
      spoken: part.name,
      shape: { kind: 'box', x: k * each, y: 0, width: each, height },
    });
  });
  marks.push(
    { kind: 'path', key: 'zero', d: `M0 ${axis.at(0)}H${each * drawn.length}`, stroke: 'line2' },
    {
      kind: 'text',
      key: 'numbers',
      words: drawn.map(({ i }, k) => ({ x: (k + 0.5) * each, y: height - 4, text: String(i + 1) })),
      face: TEXT.caption.face,
      size: TEXT.caption.size,
      ink: 'ink2',
      anchor: 'middle',
    },
  );
  return { width, height, marks, hits, spoken: '' };
}
