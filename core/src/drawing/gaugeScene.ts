import { sectorsOf, type Level, type Sector, type TargetBand } from '../bands/targetBand';
import { DEFAULT_ROUND_SCALE, type GaugeMarker, type RoundScale } from '../board/scaleChoice';
import { formatGraduation, formatNumber } from '../format/format';
import {
  gaugeGeometry,
  graduations,
  notchPath,
  onCircle,
  ringPath,
  SWEEP,
  wedgePath,
  type GaugeGeometry,
} from './gaugeGeometry';
import { lampMark } from './lampScene';
import { shapeInk } from './palette';
import type { Mark, PlacedText, Scene } from './scene';
import { spokenValue } from './spokenValue';
import { textWidth } from './textWidth';
import { valueAxis, type ValueAxis } from './valueAxis';

export interface GaugeOptions {
  readonly value: number | null;
  readonly level: Level;
  readonly band: TargetBand | null;
  readonly reference: number | null;
  readonly unit: string;
  readonly decimals: number;
  /** Ends, direction and kind of the scale; gauges side by side share the ends. */
  readonly scale?: RoundScale;
  /** More values on the same scale, each with a letter at its mark. */
  readonly others?: readonly { readonly mark: string; readonly value: number }[];
}

const LABEL = 12;
/** Half a sector's gap, in degrees. */
const HALF_GAP = 0.9;
/** Degrees a label keeps clear of the target's notch, so that they do not overlap. */
const BESIDE_TARGET = 9;
/** Where the line of a marker begins, as a share of the way to the ring: the numeral is below. */
const LINE_FROM = 0.45;
/** Half the width of the wide and of the narrow part of the beam, in degrees. */
const BEAM = { small: [17, 9], usual: [15, 7.5] } as const;

/** A round gauge, `width` px wide: a ring of sectors, with the value as a beam of light. */
export function gaugeScene(options: GaugeOptions, width: number): Scene {
  const { value, level, band, reference, unit, decimals, scale = DEFAULT_ROUND_SCALE, others = [] } = options;
  const g = gaugeGeometry(width, scale.sectors);
  const axis = valueAxis(
    scale,
    band,
    [value, reference, ...others.map((each) => each.value)].map((each) => each ?? NaN),
    [-SWEEP, SWEEP],
  );
  const judged = level !== 'nodata';
  const known = value !== null && judged;
  const dial = [
    ...sectorMarks(g, axis, band, scale.reversed),
    ...(g.showGraduations && scale.graduations ? graduationMarks(g, axis, band) : []),
    ...(g.showLabels && scale.labels ? [labels(g, axis, band)] : []),
    ...targetMarks(g, axis, band?.target ?? null),
    ...(g.showReference ? referenceMarks(g, axis, reference) : []),
  ];
  return {
    width: g.width,
    height: g.height,
    marks: [
      { kind: 'group', key: 'dial', opacity: known ? 1 : 0.38, marks: dial },
      ...others.flatMap((other) => otherMarks(g, axis.at(other.value), other.mark)),
      ...(value === null ? [] : markerMarks(g, axis.at(value), level, scale.marker)),
      ...(value === null ? [noData(g)] : numeral(g, formatNumber(value, decimals), unit, judged)),
    ],
    hits: [],
    spoken: spokenValue(value === null ? null : `${formatNumber(value, decimals)} ${unit}`, level, band),
  };
}

function sectorMarks(g: GaugeGeometry, axis: ValueAxis, band: TargetBand | null, reversed: boolean): Mark[] {
  const { low, high, at } = axis;
  const sectors: readonly Pick<Sector, 'from' | 'to' | 'level'>[] = band
    ? sectorsOf(band, low, high)
    : [{ from: low, to: high, level: 'clear' }];
  // Gaps lie between sectors, not at the ends of the dial; on a reversed scale the first sector is drawn
  // last.
  const gapBefore = (i: number): boolean => {
    const k = reversed ? sectors.length - i : i;
    return k > 0 && k < sectors.length;
  };
  const scale: Mark = {
    kind: 'path',
    key: 'scale',
    d: ringPath(g.cx, g.cy, g.outer, g.inner, -SWEEP, SWEEP),
    fill: 'well',
    stroke: 'line2',
  };
  return [
    ...(g.sectors.own ? [scale] : []),
    ...sectors.flatMap(({ from, to, level }, i) =>
      ringSector(
        g,
        Math.min(at(from), at(to)) + (gapBefore(i) ? HALF_GAP : 0),
        Math.max(at(from), at(to)) - (gapBefore(i + 1) ? HALF_GAP : 0),
        level,
        `sector ${i}`,
      ),
    ),
  ];
}

/** One sector. Worse levels fill more of the ring, so that colour is never the only sign. */
function ringSector(
  { cx, cy, sectors: { outer, inner } }: GaugeGeometry,
  from: number,
  to: number,
  level: Sector['level'],
  key: string,
): Mark[] {
  if (to <= from) return [];
  const ring = (out: number, into: number): string => ringPath(cx, cy, out, into, from, to);
  const middle = (outer + inner) / 2;
  if (level === 'breach') return [{ kind: 'path', key, d: ring(outer, inner), fill: 'breach' }];
  if (level === 'caution') {
    return [
      { kind: 'path', key: `${key} light`, d: ring(middle, inner), fill: 'cautionW' },
      { kind: 'path', key, d: ring(outer, middle), fill: 'caution' },
    ];
  }
  return [
    { kind: 'path', key: `${key} light`, d: ring(outer, inner), fill: 'water' },
    { kind: 'path', key, d: ring(outer, outer - 1.2) + ring(inner + 1.2, inner), fill: 'clear' },
  ];
}

function graduationMarks(g: GaugeGeometry, axis: ValueAxis, band: TargetBand | null): Mark[] {
  const stroke = (from: number, to: number, value: number): string => {
    const [x1, y1] = onCircle(g.cx, g.cy, from, axis.at(value));
    const [x2, y2] = onCircle(g.cx, g.cy, to, axis.at(value));
    return `M${x1.toFixed(2)} ${y1.toFixed(2)}L${x2.toFixed(2)} ${y2.toFixed(2)}`;
  };
  const limits = band ? sectorsOf(band, axis.low, axis.high).slice(1) : [];
  const all = graduations(axis);
  const strokes = (major: boolean, length: number): string =>
    all
      .filter((each) => each.major === major)
      .map(({ value }) => stroke(g.edge + 3, g.edge + length, value))
      .join('');
  return [
    {
      kind: 'path',
      key: 'limits',
      d: limits.map(({ from }) => stroke(0.62 * g.lit, g.lit, from)).join(''),
      stroke: 'line2',
      dash: '3 2.5',
    },
    { kind: 'path', key: 'minor', d: strokes(false, 5.5), stroke: 'ink2', strokeWidth: 0.8 },
    { kind: 'path', key: 'major', d: strokes(true, 8), stroke: 'ink2', strokeWidth: 1.3 },
  ];
}

/** Numbers at the graduations, except near the target and where the edge would cut them off. */
function labels(g: GaugeGeometry, axis: ValueAxis, band: TargetBand | null): Mark {
  const target = within(axis, band?.target ?? null) ? axis.at(band!.target!) : null;
  const words = graduations(axis).flatMap(({ value, major }): PlacedText[] => {
    const angle = axis.at(value);
    if (!major || (target !== null && Math.abs(angle - target) <= BESIDE_TARGET)) return [];
    const text = formatGraduation(value);
    const [x, y] = onCircle(g.cx, g.cy, g.edge + 19, angle);
    const half = textWidth(text, 'medium', LABEL) / 2;
    return x - half < 0 || x + half > g.width ? [] : [{ x, y: y + 4, text }];
  });
  return { kind: 'text', key: 'labels', words, face: 'medium', size: LABEL, ink: 'ink2', anchor: 'middle' };
}

function targetMarks(g: GaugeGeometry, axis: ValueAxis, target: number | null): Mark[] {
  if (!within(axis, target)) return [];
  const d = notchPath(g.cx, g.cy, g.edge + 1, g.edge + 12, axis.at(target), 6);
  return [{ kind: 'path', key: 'target', d, fill: 'ink' }];
}

function referenceMarks(g: GaugeGeometry, axis: ValueAxis, reference: number | null): Mark[] {
  if (!within(axis, reference)) return [];
  const d = notchPath(g.cx, g.cy, g.lit - 1, g.lit - 11, axis.at(reference), 5.5);
  return [{ kind: 'path', key: 'reference', d, fill: 'sheet', stroke: 'ink', strokeWidth: 1.3, round: true }];
}

function otherMarks(g: GaugeGeometry, angle: number, letter: string): Mark[] {
  const [x, y] = onCircle(g.cx, g.cy, g.lit - 12, angle);
  return [
    {
      kind: 'path',
      key: letter,
      d: ringPath(g.cx, g.cy, g.edge + 2, g.lit - 2, angle - 1.3, angle + 1.3),
      fill: 'sheet',
      stroke: 'ink',
      strokeWidth: 1.3,
    },
    {
      kind: 'text',
      key: `${letter} letter`,
      words: [{ x, y: y + 4, text: letter }],
      face: 'strong',
      size: LABEL,
      ink: 'ink',
      anchor: 'middle',
    },
  ];
}

/**
 * What points at the value: a beam of light, a line, or the mark on the ring alone, which all have. Drawn upright and rotated
 * to the value, so that it can turn from the previous value; faint where it is not judged.
 */
function markerMarks(g: GaugeGeometry, degrees: number, level: Level, marker: GaugeMarker): Mark[] {
  const ink = level === 'caution' || level === 'breach' ? shapeInk(level) : 'beam';
  const light = { cx: g.cx, cy: g.cy, r: g.lit, ink };
  const [wide, narrow] = g.width < 120 ? BEAM.small : BEAM.usual;
  const wedge = (half: number): string => wedgePath(g.cx, g.cy, g.lit - 1.5, 0, half);
  const mark = ringPath(g.cx, g.cy, g.edge + 3, g.lit - 3, -1.5, 1.5);
  return [
    {
      kind: 'group',
      key: 'beam',
      turned: { degrees, cx: g.cx, cy: g.cy },
      ...(level === 'nodata' && { opacity: 0.38 }),
      marks: [
        ...(marker === 'beam' && level !== 'nodata'
          ? ([
              { kind: 'path', key: 'wide', d: wedge(wide), fill: light, opacity: 0.45 },
              { kind: 'path', key: 'narrow', d: wedge(narrow), fill: light },
            ] as const)
          : []),
        ...(marker === 'line'
          ? ([
              {
                kind: 'path',
                key: 'line',
                d: `M${g.cx} ${g.cy - LINE_FROM * g.lit}V${g.cy - g.lit}`,
                stroke: 'ink',
                strokeWidth: 2.5,
                round: true,
              },
            ] as const)
          : []),
        { kind: 'path', key: 'mark', d: mark, fill: 'ink', stroke: 'sheet', strokeWidth: 1.5 },
      ],
    },
  ];
}

function numeral(g: GaugeGeometry, text: string, unit: string, judged: boolean): Mark[] {
  const base = g.cy + 0.2 * g.radius + 0.36 * g.numeral;
  const room = 1.8 * g.lit;
  const value: Mark = {
    kind: 'text',
    key: 'value',
    words: [{ x: g.cx, y: base, text }],
    face: 'strong',
    size: Math.min(g.numeral, room / textWidth(text, 'strong', 1)),
    ink: judged ? 'ink' : 'ink3',
    anchor: 'middle',
    outline: 'sheet',
  };
  if (!g.showUnit || unit === '') return [value];
  const words = [{ x: g.cx, y: base + 15, text: unit }];
  return [
    value,
    { kind: 'text', key: 'unit', words, face: 'medium', size: 13, ink: 'ink2', anchor: 'middle' },
  ];
}

/** The No data lamp in place of the numeral. */
const noData = (g: GaugeGeometry): Mark =>
  lampMark('nodata', 'none', g.cx - 18, g.cy + 0.2 * g.radius - 18, 36);

const within = ({ low, high }: ValueAxis, value: number | null): value is number =>
  value !== null && value >= low && value <= high;
