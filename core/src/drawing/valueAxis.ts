import { scaleLinear, scaleLog } from 'd3-scale';
import { limitsOf, type TargetBand } from '../bands/targetBand';
import { DEFAULT_SCALE, type ScaleChoice } from '../board/scaleChoice';
import { scaleEnds, targetEnds } from '../bands/scaleEnds';

/** A scale from value to px or degrees, with round graduations. */
export interface ValueAxis {
  readonly low: number;
  readonly high: number;
  /** Values beyond the ends stop at the ends. */
  readonly at: (value: number) => number;
  readonly ticks: (count: number) => number[];
}

/**
 * Maps values to a range, linear or logarithmic, in either direction.
 *
 * Without values above 0 a logarithmic scale falls back to linear.
 *
 * @param values numbers to include where an end is not given.
 */
export function valueAxis(
  choice: ScaleChoice | null,
  band: TargetBand | null,
  values: readonly number[],
  range: readonly [number, number],
): ValueAxis {
  const { ends, fromTarget, reversed, logarithmic } = choice ?? DEFAULT_SCALE;
  const given = fromTarget ? band : null;
  const wanted = given ? limitsOf(given) : values;
  const positive = wanted.filter((value) => value > 0);
  const asLog = logarithmic && (ends ? ends[0] > 0 : positive.length > 0);
  const [low, high] =
    ends ?? (asLog ? decades(positive) : given ? targetEnds(given) : scaleEnds(band, values));
  const way = reversed ? [range[1], range[0]] : [...range];
  const scale = (asLog ? scaleLog() : scaleLinear()).domain([low, high]).range(way).clamp(true);
  return {
    low,
    high,
    at: (value) => scale(value),
    ticks: (count) => logTicks(scale.ticks(count), asLog, count),
  };
}

/** Whole powers of ten around the values. */
function decades(values: readonly number[]): readonly [number, number] {
  const low = 10 ** Math.floor(Math.log10(Math.min(...values)));
  const high = 10 ** Math.ceil(Math.log10(Math.max(...values)));
  return low === high ? [low, high * 10] : [low, high];
}

/** On a logarithmic scale only the powers of ten, if all ticks would be too many. */
function logTicks(ticks: number[], asLog: boolean, count: number): number[] {
  if (!asLog || ticks.length <= count) return ticks;
  return ticks.filter((tick) => Math.abs(Math.log10(tick) - Math.round(Math.log10(tick))) < 1e-9);
}

/** One scale for values side by side, with ends that fit all of them. */
export function sharedScale<Scale extends ScaleChoice>(
  choice: Scale,
  band: TargetBand | null,
  parts: readonly { readonly value: number | null; readonly previous: number | null }[],
): Scale {
  const values = parts.flatMap(({ value, previous }) => [value, previous]).filter((x) => x !== null);
  const { low, high } = valueAxis(choice, band, values, [0, 1]);
  return { ...choice, ends: [low, high] };
}
