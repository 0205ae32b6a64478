import { sectorsOf, type Level, type Sector, type TargetBand } from '../bands/targetBand';
import type { ScaleChoice } from '../board/scaleChoice';
import { formatNumber } from '../format/format';
import { shapeInk } from './palette';
import { spokenValue } from './spokenValue';
import type { Mark, Scene } from './scene';
import { valueAxis } from './valueAxis';

export interface StraightOptions {
  readonly value: number | null;
  readonly level: Level;
  readonly band: TargetBand | null;
  readonly reference: number | null;
  readonly decimals: number;
  /** Ends are shared by straight gauges under one another, so that their bands line up. */
  readonly scale?: ScaleChoice;
}

const TOP = 16;
const CHANNEL = 11;
const HEIGHT = 42;
const GAP = 1;
/** Narrower than this, target and reference are left out. */
const ROOMY = 100;
/** Nothing can be read from one that is narrower than this. */
export const MIN_STRAIGHT_WIDTH = 40;

/** A gauge laid flat, for rows: sectors by fill, a small beam from above, target below, reference above. */
export function straightScene(options: StraightOptions, width: number): Scene {
  const { value, level, band, reference, decimals, scale } = options;
  const { low, high, at } = valueAxis(scale ?? null, band, [value ?? NaN], [0, width]);
  const toX = (x: number): number => Math.min(width - 3, Math.max(3, at(x)));
  const isShown = (x: number | null): x is number => width >= ROOMY && x !== null && x >= low && x <= high;
  const target = band?.target ?? null;
  const marks: Mark[] = [];
  const sectors = band ? sectorsOf(band, low, high) : [{ from: low, to: high, level: 'clear' as const }];
  sectors.forEach(({ from, to, level: sector }, i) => {
    const [a, b] = [at(from), at(to)].sort((m, n) => m - n);
    const x = a <= 0 ? 0 : a + GAP;
    marks.push(...sectorMarks(x, Math.max(0, (b >= width ? width : b - GAP) - x), sector, `sector ${i}`));
  });
  if (isShown(target))
    marks.push({ kind: 'path', key: 'target', d: `M${toX(target)} ${TOP + CHANNEL}l6 11h-12Z`, fill: 'ink' });
  if (isShown(reference)) {
    const d = `M${toX(reference)} ${TOP - 1}l5.5 -10h-11Z`;
    marks.push({ kind: 'path', key: 'reference', d, fill: 'sheet', stroke: 'ink', strokeWidth: 1.3 });
  }
  if (value !== null) marks.push(...beamMarks(toX(value), level));
  return {
    width,
    height: HEIGHT,
    marks,
    hits: [],
    spoken: spokenValue(value === null ? null : formatNumber(value, decimals), level, band),
  };
}

/** The worse the level, the fuller the channel, so that colour is never alone. */
function sectorMarks(x: number, width: number, level: Sector['level'], key: string): Mark[] {
  if (level === 'breach') return [{ kind: 'rect', key, x, y: TOP, width, height: CHANNEL, fill: 'breach' }];
  if (level === 'caution') {
    const half = { x, width, height: CHANNEL / 2 };
    return [
      { kind: 'rect', key, ...half, y: TOP, fill: 'caution' },
      { kind: 'rect', key: `${key} light`, ...half, y: TOP + CHANNEL / 2, fill: 'cautionW' },
    ];
  }
  return [
    {
      kind: 'path',
      key,
      d: `M${x} ${TOP + 0.5}h${width}M${x} ${TOP + CHANNEL - 0.5}h${width}`,
      stroke: 'clear',
    },
    { kind: 'rect', key: `${key} light`, x, y: TOP + 1, width, height: CHANNEL - 2, fill: 'water' },
  ];
}

function beamMarks(x: number, level: Level): Mark[] {
  const fill = level === 'caution' || level === 'breach' ? shapeInk(level) : 'beam';
  const faint = level === 'nodata';
  return [
    ...(faint
      ? []
      : [
          { kind: 'path', key: 'beam', d: `M${x - 2} 1h4L${x + 8} ${TOP}h-16Z`, fill, opacity: 0.6 } as const,
        ]),
    {
      kind: 'rect',
      key: 'mark',
      x: x - 2,
      y: TOP - 2.5,
      width: 4,
      height: CHANNEL + 5,
      fill: 'ink',
      stroke: 'sheet',
      ...(faint && { opacity: 0.38 }),
    },
  ];
}
