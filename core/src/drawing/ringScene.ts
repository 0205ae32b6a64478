import { formatNumber } from '../format/format';
import type { Ring } from '../stats/shares';
import { ringPath } from './gaugeGeometry';
import type { HitRegion, Mark, Scene } from './scene';
import { textWidth } from './textWidth';

export interface RingPartOptions {
  readonly key: string;
  readonly name: string;
  readonly value: number | null;
}

export interface RingOptions<T extends RingPartOptions> {
  readonly ring: Ring<T>;
  /** Key of the focused part; null = none. */
  readonly focused: string | null;
  /** Text in the middle; null = none, because a button is placed there. */
  readonly total: { readonly text: string; readonly unit: string } | null;
}

/** One colour, fainter from part to part; names stand beside the ring. */
const FADE = [1, 0.72, 0.46, 0.24, 0.6, 0.34, 0.85, 0.15];
/** Half the gap between two parts, degrees. */
const HALF_GAP = 0.6;
const TOTAL = 30;

/** Opacity of a part. */
export const ringOpacity = (i: number): number => FADE[i % FADE.length];

/** A share in percent, with a decimal if it is small: "8.4 %". */
export const shareText = (share: number): string => `${formatNumber(share * 100, share < 0.1 ? 1 : 0)} %`;

/** Shares of a whole as a ring, `size` px wide, with a hit region for each part. */
export function ringScene<T extends RingPartOptions>(
  { ring, focused, total }: RingOptions<T>,
  size: number,
): Scene {
  const r = size / 2;
  const [outer, inner] = [r - 2, r * 0.62];
  const piece = (from: number, to: number): string =>
    ringPath(r, r, outer, inner, from + HALF_GAP, Math.max(from + HALF_GAP + 0.1, to - HALF_GAP));
  const spoken = (name: string, share: number): string => `${name} ${shareText(share)}`;
  const marks: Mark[] = ring.parts.map(({ of, from, to }, i) => ({
    kind: 'path',
    key: of.key,
    d: piece(from, to),
    fill: 'sea',
    fillOpacity: ringOpacity(i),
    stroke: of.key === focused ? 'ink' : 'sea',
    strokeWidth: of.key === focused ? 3 : 0.8,
  }));
  if (ring.others)
    marks.push({
      kind: 'path',
      key: ' others',
      d: piece(ring.others.from, 360),
      fill: 'well',
      stroke: 'line2',
    });
  if (total) marks.push(...totalMarks(total, r, inner));
  return {
    width: size,
    height: size,
    marks,
    hits: ring.parts.map(({ of, share, from, to }): HitRegion => ({
      key: of.key,
      spoken: spoken(of.name, share),
      shape: { kind: 'ring', cx: r, cy: r, inner, outer, from, to },
    })),
    spoken: [
      ...ring.parts.map(({ of, share }) => spoken(of.name, share)),
      ...(ring.others ? [spoken(`${ring.others.count} others`, ring.others.share)] : []),
    ].join(', '),
  };
}

function totalMarks(
  { text, unit }: NonNullable<RingOptions<never>['total']>,
  r: number,
  inner: number,
): Mark[] {
  const size = Math.min(TOTAL, (1.7 * inner) / textWidth(text, 'strong', 1));
  const at = (y: number, word: string) => [{ x: r, y, text: word }];
  return [
    {
      kind: 'text',
      key: 'total',
      words: at(r + 4, text),
      face: 'strong',
      size,
      ink: 'ink',
      anchor: 'middle',
    },
    {
      kind: 'text',
      key: 'unit',
      words: at(r + 24, unit),
      face: 'regular',
      size: 14,
      ink: 'ink2',
      anchor: 'middle',
    },
  ];
}
