import { scaleLinear, scaleLog } from 'd3-scale';
import { formatNumber } from '../../format/format';
import { limitsOf, type TargetBand } from '../../bands/targetBand';
import { targetEnds } from '../../bands/scaleEnds';
import type { Interval } from '../../time/interval';
import type { TrendMark } from '../../readouts/trendChoices';
import type { TrendScale } from '../../board/scaleChoice';
import type { TrendAnswer } from '../../api/readings';
import { brokenAxis } from './brokenAxis';
import { linePattern } from './linePattern';
import type { PlotAxis } from './plotAxis';
import type { PlacedText } from '../scene';
import { tenths } from '../tenths';
import { textWidth } from '../textWidth';
import { linePath } from '../linePath';
import { drawnPart, timeScale, valueDomain, type PointPeriods } from './trendGeometry';

/** One line of a trend. */
export interface TrendSeries {
  readonly key: string;
  readonly name: string;
  readonly assetId: string | null;
  readonly answer: TrendAnswer;
  /** Which pattern its line has; default: by its place among the lines. */
  readonly pattern?: number;
  /** Of a running total: periods before its end that it is without. */
  readonly missing?: number;
}

/** A trend of one line. */
export function oneSeries(answer: TrendAnswer, name: string): TrendSeries[] {
  return [{ key: 'one', name, assetId: null, answer }];
}

export interface LayoutOptions {
  readonly window: Interval;
  readonly width: number;
  readonly height: number;
  readonly mark: TrendMark;
  readonly cumulative: boolean;
  readonly scale: TrendScale;
  readonly band: TargetBand | null;
  /** Of the second unit. */
  readonly secondBand?: TargetBand | null;
  /** Key of the series that the others are compared with; it is never stacked. */
  readonly compared?: string | null;
}

/** A series laid out for drawing. */
export interface PlottedSeries {
  readonly key: string;
  readonly name: string;
  readonly assetId: string | null;
  readonly unit: string;
  /** 0 = left axis, 1 = right axis. */
  readonly axis: 0 | 1;
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
  /** Height at each time: `v`, or the top of the layer in a stack. */
  readonly top: readonly (number | null)[];
  /** Of each point; null = samples. */
  readonly periods: PointPeriods | null;
  readonly path: string;
  /** Dashes and gaps, px; undefined = drawn through. */
  readonly dash: string | undefined;
  /** Points without a neighbour, which no line shows: their indexes. */
  readonly lone: readonly number[];
  /** Area under the line; "" for lines alone. */
  readonly area: string;
  readonly columns: readonly {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
    readonly at: number;
  }[];
}

export interface TrendLayout {
  readonly x: ReturnType<typeof timeScale>;
  readonly axes: readonly PlotAxis[];
  readonly series: readonly PlottedSeries[];
  /** Why an axis that was asked to be broken is not; null = it is, or was not asked to be. */
  readonly unbroken: string | null;
  readonly finishedUntil: number;
}

/**
 * Lays out the series: axes for at most two units (a stack has one; see `trendPanels`), paths, areas or columns. Pure; all
 * in px.
 */
export function trendLayout(all: readonly TrendSeries[], options: LayoutOptions): TrendLayout {
  const {
    window,
    width,
    height,
    mark,
    cumulative,
    scale,
    band,
    secondBand = null,
    compared = null,
  } = options;
  const units = [...new Set(all.map(({ answer }) => answer.unit))];
  // Only one unit can be added up.
  const axesFor = mark === 'stacked' ? 1 : 2;
  const drawn = all.filter(({ answer }) => units.indexOf(answer.unit) < axesFor);
  const x = timeScale(window, width);
  const prepared = drawn.map((each) => {
    return { ...each, ...drawnPart(each.answer, cumulative) };
  });
  // What is compared with lies beside the stack, not on it.
  const layers = prepared.filter(({ key }) => key !== compared);
  const tower = mark === 'stacked' ? stackedTops(layers) : null;
  const stacked = tower && prepared.map((each) => tower[layers.indexOf(each)] ?? null);
  const tops = prepared.map((each, i) => stacked?.[i] ?? each.v);
  const fromZero = mark === 'columns' || mark === 'stacked' || mark === 'area';
  const axes = units.slice(0, axesFor).map((unit, k) => {
    const own = tops.filter((_, i) => prepared[i].answer.unit === unit);
    const values = own.length === 1 ? own[0] : own.flat();
    return axisOf(unit, values, {
      height,
      fromZero,
      scale: k === 0 ? scale : { ...scale, ends: null },
      band: k === 0 ? band : secondBand,
    });
  });
  const series = prepared.map((each, i): PlottedSeries => {
    const axis = units.indexOf(each.answer.unit) as 0 | 1;
    const { at } = axes[axis];
    const top = tops[i];
    const base = at(Math.max(axes[axis].domain[0], Math.min(0, axes[axis].domain[1])));
    const layer = layers.indexOf(each);
    const below = tower && layer > 0 ? tower[layer - 1] : null;
    const isLayer = mark === 'area' || (mark === 'stacked' && layer >= 0);
    const path =
      mark === 'steps' ? stepPath(each.t, top, each.answer.until, x, at) : linePath(each.t, top, x, at);
    return {
      key: each.key,
      name: each.name,
      assetId: each.assetId,
      unit: each.answer.unit,
      axis,
      t: each.t,
      v: each.v,
      top,
      path: mark === 'columns' ? '' : path,
      dash: linePattern(each.pattern ?? i),
      lone: mark === 'columns' || mark === 'steps' ? [] : lonePoints(top),
      periods: each.periods,
      area: isLayer ? areaPath(each.t, top, below, x, at, base) : '',
      columns: mark === 'columns' ? columnsOf(each.t, top, prepared.length, i, window, x, at, base) : [],
    };
  });
  return {
    x,
    axes,
    series,
    unbroken:
      scale.broken && axes.every(({ gap }) => gap === null) ? unbrokenWords(mark, scale, fromZero) : null,
    finishedUntil: prepared.reduce(
      (latest, { finishedUntil }) => Math.max(latest, finishedUntil),
      window.start,
    ),
  };
}

/** Why nothing is left out of a scale. */
function unbrokenWords(mark: TrendMark, { ends, logarithmic }: TrendScale, fromZero: boolean): string {
  if (fromZero) {
    return `The scale is not broken: ${mark === 'columns' ? 'columns' : 'areas'} are read by their height.`;
  }
  if (ends) return 'The scale is not broken: its ends are fixed.';
  if (logarithmic) return 'The scale is not broken: it is logarithmic.';
  return 'The scale is not broken: no stretch between the values is empty enough to be left out.';
}

/** Points with a gap or the end of the line at both sides. */
const lonePoints = (v: readonly (number | null)[]): number[] =>
  v.flatMap((value, i) =>
    value !== null && (v[i - 1] ?? null) === null && (v[i + 1] ?? null) === null ? [i] : [],
  );

/**
 * Tops of stacked layers by time. Where a layer is missing, it and those above it are: their height is not known.
 * Not d3-shape's stack, which needs one table of
 * all layers at the same times: here layers may have different times.
 */
function stackedTops(
  all: readonly { readonly t: readonly number[]; readonly v: readonly (number | null)[] }[],
): (number | null)[][] {
  const height = new Map<number, number>();
  return all.map(({ t, v }) =>
    t.map((time, i) => {
      const value = v[i];
      const top = value === null ? NaN : (height.get(time) ?? 0) + value;
      height.set(time, top);
      return Number.isNaN(top) ? null : top;
    }),
  );
}

function axisOf(
  unit: string,
  values: readonly (number | null)[],
  {
    height,
    fromZero,
    scale,
    band,
  }: { height: number; fromZero: boolean; scale: TrendScale; band: TargetBand | null },
): PlotAxis {
  const given = scale.fromTarget ? band : null;
  const wanted = given ? limitsOf(given) : values;
  const positive = scale.logarithmic
    ? wanted.filter((value): value is number => value !== null && value > 0)
    : [];
  const asLog = scale.logarithmic && (scale.ends ? scale.ends[0] > 0 : positive.length > 0);
  const [low, high] = given ? targetEnds(given) : valueDomain(values, band);
  const usual: [number, number] = fromZero ? [Math.min(0, low), Math.max(0, high)] : [low, high];
  const domain: [number, number] = scale.ends
    ? [...scale.ends]
    : asLog
      ? [
          10 ** Math.floor(Math.log10(Math.min(...positive))),
          10 ** Math.ceil(Math.log10(Math.max(...positive)) + 1e-9),
        ]
      : usual;
  // Columns and areas are read by their length, so their scale must not be broken or cut off.
  if (scale.broken && !fromZero && !asLog && !scale.ends) {
    const known = values.filter((value): value is number => value !== null);
    const broken = brokenAxis(unit, [...known, ...(band ? limitsOf(band) : [])], height, scale.reversed);
    if (broken) return broken;
  }
  const range = scale.reversed ? [0, height] : [height, 0];
  const y = (asLog ? scaleLog().clamp(true) : scaleLinear()).domain(domain).range(range);
  const count = height > 150 ? 5 : 3;
  const ticks = y.ticks(count);
  const few = ticks.length <= count * 2 ? ticks : ticks.filter((tick) => Math.log10(tick) % 1 === 0);
  const [from, to] = range;
  const perUnit = (to - from) / (domain[1] - domain[0]);
  const at = asLog ? (value: number) => y(value) : (value: number) => from + (value - domain[0]) * perUnit;
  return { unit, domain, at, ticks: few, gap: null };
}

/** A step line: each value holds until the next one, or through its period. */
export function stepPath(
  t: readonly number[],
  v: readonly (number | null)[],
  until: readonly number[] | null,
  x: (t: number) => number,
  y: (v: number) => number,
): string {
  let path = '';
  let open = false;
  for (let i = 0; i < t.length; i++) {
    const value = v[i];
    if (value === null) {
      open = false;
      continue;
    }
    const half =
      until && i + 1 < t.length ? (t[i + 1] - t[i]) / 2 : until && i > 0 ? (t[i] - t[i - 1]) / 2 : 0;
    const from = tenths(x(t[i] - half));
    const to = tenths(until ? x(t[i] + half) : i + 1 < t.length ? x(t[i + 1]) : x(t[i]));
    const level = tenths(y(value));
    path += open ? `V${level}H${to}` : `M${from} ${level}H${to}`;
    open = true;
  }
  return path;
}

function areaPath(
  t: readonly number[],
  top: readonly (number | null)[],
  below: readonly (number | null)[] | null,
  x: (t: number) => number,
  y: (v: number) => number,
  base: number,
): string {
  const parts: string[] = [];
  for (let i = 0; i < t.length;) {
    if (top[i] === null) {
      i++;
      continue;
    }
    let end = i;
    while (end < t.length && top[end] !== null) end++;
    const upper = t.slice(i, end).map((time, k) => `${tenths(x(time))} ${tenths(y(top[i + k]!))}`);
    const lower = t
      .slice(i, end)
      .map((time, k) => `${tenths(x(time))} ${tenths(below?.[i + k] != null ? y(below[i + k]!) : base)}`)
      .reverse();
    parts.push(`M${upper.join('L')}L${lower.join('L')}Z`);
    i = end;
  }
  return parts.join('');
}

function columnsOf(
  t: readonly number[],
  v: readonly (number | null)[],
  count: number,
  index: number,
  window: Interval,
  x: (t: number) => number,
  y: (v: number) => number,
  base: number,
): PlottedSeries['columns'] {
  const step =
    t.length > 1 ? Math.min(...t.slice(1).map((time, i) => time - t[i])) : window.end - window.start;
  const room = Math.max(1, x(window.start + step) - x(window.start));
  const each = Math.max(1, (room * 0.8) / count);
  return t.flatMap((time, i) => {
    const value = v[i];
    if (value === null) return [];
    const at = x(time) - (each * count) / 2 + each * index;
    const top = Math.min(y(value), base);
    return [
      {
        x: at,
        y: top,
        width: Math.max(0.8, each - (each > 4 ? 1 : 0)),
        height: Math.max(0.5, Math.abs(y(value) - base)),
        at: i,
      },
    ];
  });
}

/** Size of numbers in the plot, px. */
export const PLOT_NUMBER = 12;

/** The value above each column if all of them fit side by side, otherwise none: only some would mislead. */
export function columnLabels(
  series: readonly Pick<PlottedSeries, 'columns' | 'top'>[],
  decimals: number,
): PlacedText[] {
  const labels: PlacedText[] = [];
  for (const { columns, top } of series) {
    for (const { x, y, width, at } of columns) {
      const text = formatNumber(top[at]!, decimals);
      if (textWidth(text, 'medium', PLOT_NUMBER) > width + 4) return [];
      labels.push({ x: x + width / 2, y: y - 4, text });
    }
  }
  return labels;
}

/** Positions of labels at the ends of lines without overlaps, in the given order. */
export function labelPlaces(wanted: readonly number[], gap: number, low: number, high: number): number[] {
  const order = wanted.map((y, i) => ({ y, i })).sort((a, b) => a.y - b.y);
  const places = order.map(({ y }) => Math.min(high, Math.max(low, y)));
  for (let i = 1; i < places.length; i++) places[i] = Math.max(places[i], places[i - 1] + gap);
  const over = places.length > 0 ? places[places.length - 1] - high : 0;
  if (over > 0) {
    places[places.length - 1] = high;
    for (let i = places.length - 2; i >= 0; i--) places[i] = Math.min(places[i], places[i + 1] - gap);
  }
  const out = new Array<number>(wanted.length);
  order.forEach(({ i }, k) => {
    out[i] = places[k];
  });
  return out;
}
