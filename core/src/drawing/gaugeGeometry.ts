import type { SectorPlace } from '../board/scaleChoice';
import type { ValueAxis } from './valueAxis';

/**
 * Sizes and positions of a round gauge in px, from its width alone. Angles in degrees from straight up,
 * clockwise.
 */
export interface GaugeGeometry {
  readonly width: number;
  readonly height: number;
  readonly cx: number;
  readonly cy: number;
  readonly radius: number;
  readonly outer: number;
  readonly inner: number;
  /** The ring of the sectors: that of the scale, or a slim one. */
  readonly sectors: { readonly outer: number; readonly inner: number; readonly own: boolean };
  /** Outer radius of both rings; graduations, labels and the target lie outside it. */
  readonly edge: number;
  /** Inner radius of both rings; the beam ends here. */
  readonly lit: number;
  readonly numeral: number;
  readonly showLabels: boolean;
  readonly showGraduations: boolean;
  readonly showUnit: boolean;
  readonly showReference: boolean;
}

export const SWEEP = 120;
/** Width of a separate ring of sectors and its distance from the scale, px. */
const SLIM = 7;
const SLIM_GAP = 2;
/** Narrower gauges are not drawn: a lamp and a figure say it better. */
export const MIN_GAUGE_WIDTH = 80;

/** Left out as a gauge gets smaller: labels, then graduations, then the unit, then the reference. */
export function gaugeGeometry(width: number, place: SectorPlace = 'on'): GaugeGeometry {
  const showLabels = width >= 220;
  const showGraduations = width >= 140;
  const pad = showLabels ? 26 : showGraduations ? 11 : 9;
  const radius = width / 2 - pad;
  // A gauge too small for graduations has no room for a second ring.
  const put = showGraduations ? place : 'on';
  const outer = showGraduations ? 0.945 * radius - (put === 'outside' ? SLIM + SLIM_GAP : 0) : radius - 2;
  const inner = outer - Math.max(7, 0.15 * radius);
  const sectors =
    put === 'inside'
      ? { outer: inner - SLIM_GAP, inner: inner - SLIM_GAP - SLIM, own: true }
      : put === 'outside'
        ? { outer: outer + SLIM_GAP + SLIM, inner: outer + SLIM_GAP, own: true }
        : { outer, inner, own: false };
  const share = width >= 220 ? 0.44 : width < 112 ? 0.52 : 0.47;
  return {
    width,
    height: pad + 1.5 * radius + (showLabels ? 14 : 8),
    cx: width / 2,
    cy: pad + radius,
    radius,
    outer,
    inner,
    sectors,
    edge: Math.max(outer, sectors.outer),
    lit: Math.min(inner, sectors.inner),
    numeral: share * radius,
    showLabels,
    showGraduations,
    showUnit: width >= 120,
    showReference: width >= 112,
  };
}

/** Point on a circle; 0° is straight up. */
export function onCircle(cx: number, cy: number, r: number, degrees: number): readonly [number, number] {
  const angle = (degrees * Math.PI) / 180;
  return [cx + r * Math.sin(angle), cy - r * Math.cos(angle)];
}

/** A piece of a ring between two radii and two angles. */
export function ringPath(
  cx: number,
  cy: number,
  outer: number,
  inner: number,
  from: number,
  to: number,
): string {
  const large = to - from > 180 ? 1 : 0;
  const p = (r: number, degrees: number): string =>
    onCircle(cx, cy, r, degrees)
      .map((x) => x.toFixed(2))
      .join(' ');
  return `M${p(outer, from)}A${outer} ${outer} 0 ${large} 1 ${p(outer, to)}L${p(inner, to)}A${inner} ${inner} 0 ${large} 0 ${p(inner, from)}Z`;
}

/** A wedge of light from the centre. */
export function wedgePath(cx: number, cy: number, r: number, at: number, half: number): string {
  const [x1, y1] = onCircle(cx, cy, r, at - half);
  const [x2, y2] = onCircle(cx, cy, r, at + half);
  return `M${cx} ${cy}L${x1.toFixed(2)} ${y1.toFixed(2)}A${r} ${r} 0 0 1 ${x2.toFixed(2)} ${y2.toFixed(2)}Z`;
}

/** A triangle whose tip touches the ring: outside pointing in (`r` = outer), or inside pointing out. */
export function notchPath(
  cx: number,
  cy: number,
  tip: number,
  base: number,
  at: number,
  halfWidth: number,
): string {
  const [tx, ty] = onCircle(cx, cy, tip, at);
  const [bx, by] = onCircle(cx, cy, base, at);
  const angle = (at * Math.PI) / 180;
  const dx = Math.cos(angle) * halfWidth;
  const dy = Math.sin(angle) * halfWidth;
  return `M${tx.toFixed(2)} ${ty.toFixed(2)}L${(bx + dx).toFixed(2)} ${(by + dy).toFixed(2)}L${(bx - dx).toFixed(2)} ${(by - dy).toFixed(2)}Z`;
}

export interface Graduation {
  readonly value: number;
  readonly major: boolean;
}

/** Major graduations at round numbers and minor ones half-way between. */
export function graduations({ low, high, ticks }: Pick<ValueAxis, 'low' | 'high' | 'ticks'>): Graduation[] {
  const majors = ticks(6);
  const all = majors.map((value) => ({ value, major: true }));
  const step = majors.length > 1 ? majors[1] - majors[0] : 0;
  const even = majors.every((value, i) => i === 0 || Math.abs(value - majors[i - 1] - step) < step * 1e-6);
  // There is no midpoint between powers of ten.
  if (majors.length < 2 || !even) return all;
  for (let i = -1; i < majors.length; i++) {
    const value = majors[0] + (i + 0.5) * step;
    if (value > low && value < high) all.push({ value, major: false });
  }
  return all.sort((a, b) => a.value - b.value);
}
