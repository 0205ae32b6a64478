import { limitsOf, sectorsOf, type Level, type TargetBand } from '../bands/targetBand';
import { shapeInk, type Ink } from './palette';
import type { Mark } from './scene';

/** Values between the ends of the bars of one column; zero is always among them. */
export interface BarScale {
  readonly low: number;
  readonly high: number;
}

export interface ValueBarOptions {
  readonly value: number | null;
  readonly level: Level;
  readonly band: TargetBand | null;
  readonly scale: BarScale;
  readonly isChosen: boolean;
}

/** Height of a bar, px; its target reaches beyond it. */
export const BAR_HEIGHT = 10;
const TARGET_HEIGHT = 18;
const SHORT_HEIGHT = 4;

/** One scale for the bars of a column: from zero, so that lengths can be compared, with its values and its band. */
export function barScale(values: readonly (number | null)[], band: TargetBand | null): BarScale {
  const all = [0, ...values.filter((value) => value !== null), ...(band ? limitsOf(band) : [])];
  const [low, high] = [Math.min(...all), Math.max(...all)];
  return low === high ? { low, high: low + 1 } : { low, high };
}

/**
 * A value as a bar from zero, its middle at height 0. What lies beyond Clear has the colour of its level; what is short
 * of Clear is a thin line up to it. The target is a tick, a missing value a dashed line.
 */
export function valueBar({ value, level, band, scale, isChosen }: ValueBarOptions, width: number): Mark[] {
  const x = (each: number): number => ((each - scale.low) / (scale.high - scale.low)) * width;
  const marks: Mark[] = [];
  if (value === null) {
    marks.push({ kind: 'path', key: 'none', d: `M0 0H${width}`, stroke: 'line2', dash: '3 2.5' });
  } else {
    const [from, to] = value < 0 ? [value, 0] : [0, value];
    const isJudged = band !== null && level !== 'nodata';
    const sections = isJudged && level !== 'clear' ? sectorsOf(band, from, to) : [];
    const lastClear = sections.findLastIndex((part) => part.level === 'clear');
    // From the last Clear on, counted from zero, it is beyond; without any it is short of Clear.
    const beyond = lastClear < 0 ? [] : sections.slice(lastClear + 1);
    const own: Ink = isChosen ? 'sea' : level === 'nodata' ? 'line2' : 'bar';
    marks.push({ ...box(x(from), x(beyond.at(0)?.from ?? to), BAR_HEIGHT), key: 'own', fill: own });
    for (const [i, part] of beyond.entries())
      marks.push({
        ...box(x(part.from), x(part.to), BAR_HEIGHT),
        key: `beyond ${i}`,
        fill: shapeInk(part.level),
      });
    const clear =
      sections.length > 0 && lastClear < 0
        ? sectorsOf(band!, scale.low, scale.high).find((part) => part.level === 'clear')
        : undefined;
    if (clear) {
      const edge = clear.from > value ? clear.from : clear.to;
      const ends: readonly [number, number] = edge > value ? [x(value), x(edge)] : [x(edge), x(value)];
      marks.push({ ...box(...ends, SHORT_HEIGHT), key: 'short', fill: shapeInk(level) });
    }
  }
  if (scale.low < 0)
    marks.push({ kind: 'path', key: 'zero', d: tick(x(0), BAR_HEIGHT + 4), stroke: 'line2' });
  if (band && band.target !== null) {
    marks.push({
      kind: 'path',
      key: 'target',
      d: tick(x(band.target), TARGET_HEIGHT),
      stroke: 'ink',
      strokeWidth: 1.5,
    });
  }
  return marks;
}

const box = (from: number, to: number, height: number) =>
  ({ kind: 'rect', x: from, y: -height / 2, width: Math.max(0.5, to - from), height }) as const;

const tick = (x: number, height: number): string => `M${x} ${-height / 2}V${height / 2}`;
