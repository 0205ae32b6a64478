import type { LevelSpan } from '../../bands/bandTime';
import { sectorsOf, type TargetBand } from '../../bands/targetBand';
import { DEFAULT_TREND_SCALE, type TrendScale } from '../../board/scaleChoice';
import type { TrendMark } from '../../readouts/trendChoices';
import { formatNumber } from '../../format/format';
import type { Interval } from '../../time/interval';
import type { Channel } from '../bandChannel';
import { knownExtent } from '../knownExtent';
import { textWidth } from '../textWidth';
import type { PlotAxis } from './plotAxis';
import { trendLayout, type PlottedSeries, type TrendLayout, type TrendSeries } from './trendLayout';

/** Options of a trend. */
export interface TrendOptions {
  /** At least one. */
  readonly series: readonly TrendSeries[];
  readonly mark: TrendMark;
  readonly cumulative: boolean;
  readonly scale: TrendScale;
  readonly band: TargetBand | null;
  /** Band of the second unit. */
  readonly secondBand: TargetBand | null;
  readonly decimals: number;
  /** Whether values are written at the points, as many as fit. */
  readonly labelled: boolean;
  /** The asset whose line is the subject unless one is chosen; default: the first line. */
  readonly focus: string | null;
  /** Key of the line chosen as the subject; null = none. */
  readonly chosen: string | null;
  /** The reference line, shifted into the window and dashed. */
  readonly reference: TrendSeries | null;
  /** Whether times are counted from a start event instead of dates. */
  readonly since: boolean;
  /** What lies along its time. */
  readonly along: AlongTime;
}

/** Marks along the time of a trend. */
export interface AlongTime {
  /** Levels of the first line; breaches are marked above the plot and on the axis. */
  readonly spans: readonly LevelSpan[];
  /** Remarks on the asset, each a line over its stretch of time. */
  readonly remarks: readonly Interval[];
  /** When alarms of the shown metrics were raised, ms. */
  readonly alarms: readonly number[];
  /** Flags on the shown metrics. */
  readonly flags: readonly { readonly at: number; readonly open: boolean }[];
}

export const NOTHING_ALONG: AlongTime = { spans: [], remarks: [], alarms: [], flags: [] };

/** A trend of one line without choices of its own. */
export const PLAIN_TREND: Omit<TrendOptions, 'series' | 'decimals'> = {
  mark: 'line',
  cumulative: false,
  scale: DEFAULT_TREND_SCALE,
  band: null,
  secondBand: null,
  labelled: false,
  focus: null,
  chosen: null,
  reference: null,
  since: false,
  along: NOTHING_ALONG,
};

/** A laid-out trend: position of the plot in the drawing; axes and lines in px of the plot. */
export interface TrendPlot {
  readonly width: number;
  readonly height: number;
  readonly plot: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly layout: TrendLayout;
  /** The lines without the reference. */
  readonly lines: readonly PlottedSeries[];
  /** The subject, drawn in ink in front. */
  readonly subject: PlottedSeries;
  readonly compared: PlottedSeries | undefined;
  /** Bands of the left and right axis; null = none. */
  readonly bands: readonly [TargetBand | null, TargetBand | null];
  /** Both bands in px, bottom up. */
  readonly channels: readonly [readonly Channel[], readonly Channel[]];
  /** Whether names are at the ends of the lines. */
  readonly named: boolean;
  /** Room for them, px. */
  readonly forNames: number;
  /** Position of the second axis in the plot. */
  readonly rightAt: number;
  readonly options: TrendOptions;
}

const TOP = 24;
const BOTTOM = 22;
/** Least room for value graduations, px. */
const LEFT = 46;
const RIGHT = 18;
const SECOND_AXIS = 44;
/** Least width of a drawing with names at the ends of the lines, px. */
export const NAMES_FROM = 420;
const NAME = 13;
const MAX_FOR_NAMES = 165;
/** Of a wide drawing names may take this share. */
const NAMES_SHARE = 0.22;
/** Distance from the plot to a name with a lamp, px. */
const BEFORE_NAME = 27;

/** Lays out a trend. Pure; all in px. */
export function trendPlot(options: TrendOptions, width: number, height: number): TrendPlot {
  const { series, reference, mark, cumulative, scale, focus, chosen } = options;
  const named = series.length > 1 && width >= NAMES_FROM;
  const twoUnits = mark !== 'stacked' && new Set(series.map(({ answer }) => answer.unit)).size > 1;
  const forNames = named ? nameRoom(series, Math.max(MAX_FOR_NAMES, width * NAMES_SHARE)) : 0;
  const rightAt = RIGHT - 6 + forNames;
  const left = Math.max(LEFT, graduationRoom(series[0]));
  const plot = {
    x: left,
    y: TOP,
    width: Math.max(10, width - left - rightAt - 6 - (twoUnits ? SECOND_AXIS : 0)),
    height: Math.max(10, height - TOP - BOTTOM),
  };
  const isJudged = mark !== 'stacked';
  const bands = [isJudged ? options.band : null, isJudged && twoUnits ? options.secondBand : null] as const;
  const layout = trendLayout(reference ? [...series, reference] : series, {
    window: series[0].answer.window,
    width: plot.width,
    height: plot.height,
    mark,
    cumulative,
    scale,
    band: bands[0],
    secondBand: bands[1],
    compared: reference?.key ?? null,
  });
  const lines = layout.series.filter(({ key }) => key !== reference?.key);
  return {
    width,
    height,
    plot,
    layout,
    lines,
    subject:
      lines.find(({ key }) => key === chosen) ??
      lines.find(({ assetId }) => focus !== null && assetId === focus) ??
      lines[0],
    compared: layout.series.find(({ key }) => key === reference?.key),
    bands,
    channels: [channelsOf(bands[0], layout.axes[0]), channelsOf(bands[1], layout.axes[1])],
    named,
    forNames,
    rightAt: plot.width + rightAt,
    options,
  };
}

/** A target band as sectors of a value axis, bottom up. */
function channelsOf(band: TargetBand | null, axis: PlotAxis | undefined): readonly Channel[] {
  if (!band || !axis) return [];
  return sectorsOf(band, axis.domain[0], axis.domain[1])
    .map(({ from, to, level }) => ({
      top: Math.min(axis.at(from), axis.at(to)),
      bottom: Math.max(axis.at(from), axis.at(to)),
      level,
    }))
    .sort((a, b) => b.top - a.top);
}

/** Room for names to the right of the plot, px. */
function nameRoom(series: readonly TrendSeries[], most: number): number {
  const longest = Math.max(0, ...series.map(({ name }) => textWidth(name, 'strong', NAME)));
  return Math.min(most, longest + BEFORE_NAME);
}

/** Width of the longest possible graduation for values of this size, px. */
function graduationRoom({ answer: { v } }: TrendSeries): number {
  const size = Math.max(0, ...knownExtent(v).map(Math.abs));
  // The longest form: thousands, or a power of ten.
  return textWidth(formatNumber(-size, 0), 'medium', 12) + 14;
}
