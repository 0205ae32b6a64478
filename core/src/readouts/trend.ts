import type { Mark } from '../drawing/scene';
import { trendLayout, type TrendSeries } from '../drawing/trend/trendLayout';
import { linePattern } from '../drawing/trend/linePattern';
import { trendPanels } from '../drawing/trend/trendPanels';
import { NAMES_FROM, trendPlot, type AlongTime, type TrendOptions } from '../drawing/trend/trendPlot';
import { drawnPart } from '../drawing/trend/trendGeometry';
import { trendScene } from '../drawing/trend/trendScene';
import { formatValue } from '../format/format';
import type { AlongAsks } from './alongAsks';
import type { ReadoutFormOf } from './readoutForm';
import { ONE_VALUE } from './oneValue';
import { TEXT, wrapped, written } from './scene/words';
import { TREND_SLOTS } from './slots';
import type { Table } from './table';
import { trendFields, DEFAULT_TREND, type TrendChoices } from './trendChoices';
import { trendCaption } from './trendCaption';
import { factsOfTrend, trendRequests, trendData, type TrendData } from './trendData';

/** Usual height of a trend, px. */
export const TREND_HEIGHT = 240;
const LEAST_HEIGHT = 80;
/** Height of one of several small plots, px. */
export const PANEL_HEIGHT = 150;
/** Length of a line in the legend, px: a pattern of it shows. */
export const LEGEND_KEY = 28;
/** Where the caption begins, px. */
const CAPTION = 46;

/** Lines, columns or areas over time. Compared only on request, because a second line takes attention. */
export const trend: ReadoutFormOf<TrendChoices, TrendData> = {
  ...ONE_VALUE,
  fields: trendFields,
  defaults: DEFAULT_TREND,
  slots: TREND_SLOTS,
  label: 'Trend',
  overTime: true,
  compare: 'none',
  columns: { one: 6, many: 6 },
  requests: trendRequests,
  facts: factsOfTrend,
  data: trendData,
  alike: trendsAlike,
  along: alongTrend,
  scene: (data, { width, height, focus, along }) => {
    const caption = wrapped(captionOf(data), TEXT.second, Math.max(40, width - CAPTION));
    const options = plotsOfTrend(data, { focus, chosen: null, along });
    const many = options.length > 1;
    const named = data.series.length > 1 && (width < NAMES_FROM || many) ? data.series : [];
    const room = caption.length * TEXT.second.lineHeight + named.length * TEXT.body.lineHeight;
    const usual = many ? options.length * PANEL_HEIGHT : TREND_HEIGHT;
    const each = Math.max(LEAST_HEIGHT, (height === null ? usual : height - room) / options.length);
    const plots = options.map((own) => trendPlot(own, width, each));
    const below = each * plots.length;
    const legendAt = below + caption.length * TEXT.second.lineHeight;
    return {
      width,
      height: below + room,
      marks: [
        ...plots.map((plot, i): Mark => ({
          kind: 'group',
          key: `panel ${i}`,
          y: i * each,
          marks: trendScene(plot).marks,
        })),
        written(caption, { key: 'caption', x: CAPTION, y: below, style: TEXT.second, ink: 'ink2' }),
        ...named.flatMap((line, i) =>
          legendLine(
            line,
            newestDrawn(line, data.readout.cumulative),
            plots.some(({ subject }) => subject.key === line.key),
            legendAt + i * TEXT.body.lineHeight,
            decimalsOfLine(line, data),
          ),
        ),
      ],
      hits: [],
      spoken: captionOf(data),
    };
  },
  table: trendTable,
};

/**
 * Drawing options of each plot of a trend: of one, or of a small one for each unit.
 * @param focus the focused asset. @param chosen key of the line chosen as the subject.
 */
export function plotsOfTrend<Along extends AlongTime>(
  { series, reference, decimals, readout, aligned }: TrendData,
  {
    focus,
    chosen,
    along,
  }: { readonly focus: string | null; readonly chosen: string | null; readonly along: Along },
): readonly (TrendOptions & { readonly along: Along })[] {
  const { mark, cumulative, scale, pointLabels, band, secondBand } = readout;
  const panels = trendPanels(series, mark);
  const nothing: Along = { ...along, spans: [], remarks: [], alarms: [], flags: [] };
  const bands =
    panels.length === 1
      ? [{ band, secondBand }]
      : [band, secondBand].map((own) => ({ band: own, secondBand: null }));
  return panels.map((lines, i) => ({
    series: lines,
    decimals,
    mark,
    cumulative,
    // Ends are those of the first unit, and what lies along the time is marked once.
    scale: i === 0 ? scale : { ...scale, ends: null },
    ...(bands[i] ?? { band: null, secondBand: null }),
    labelled: pointLabels,
    focus,
    chosen,
    reference: i === 0 ? reference : null,
    since: aligned,
    along: i === 0 ? along : nothing,
  }));
}

/** Copies with one unit on one scale; with several, each plot keeps its own. */
function trendsAlike(all: readonly TrendData[]): readonly TrendData[] {
  if (new Set(all.flatMap(({ series }) => series.map(({ answer }) => answer.unit))).size > 1) return all;
  const domains = all.map(({ series, reference, window, readout: { mark, cumulative, scale, band } }) => {
    const lines = reference ? [...series, reference] : series;
    const whole = { ...scale, broken: false };
    const options = {
      window,
      width: 100,
      height: 100,
      mark,
      cumulative,
      scale: whole,
      band,
      compared: 'reference',
    };
    return trendLayout(lines, options).axes[0].domain;
  });
  const ends = [
    Math.min(...domains.map(([low]) => low)),
    Math.max(...domains.map(([, high]) => high)),
  ] as const;
  return all.map((data) => ({
    ...data,
    readout: { ...data.readout, scale: { ...data.readout.scale, ends: [...ends] } },
  }));
}

/** The value at the end of a line: that of the newest finished period, of a running total so far. */
export function newestDrawn({ answer }: TrendSeries, cumulative: boolean): number | null {
  return drawnPart(answer, cumulative).v.findLast((value) => value !== null) ?? null;
}

/** Decimals of the newest value of a line: those of the trend in its first unit; another has no choice of its own. */
export function decimalsOfLine(
  { answer }: TrendSeries,
  { series, decimals }: Pick<TrendData, 'series' | 'decimals'>,
): number {
  return answer.unit === series[0].answer.unit ? decimals : Math.max(1, decimals);
}

/** A line's name with its newest value, if there is no room at its end. */
function legendLine(
  { key, name, pattern = 0, answer: { unit } }: TrendSeries,
  newest: number | null,
  isSubject: boolean,
  y: number,
  decimals: number,
): Mark[] {
  const style = isSubject ? TEXT.strong : TEXT.body;
  const middle = y + style.lineHeight / 2;
  return [
    {
      kind: 'path',
      key: `${key} line`,
      d: `M${CAPTION} ${middle}h${LEGEND_KEY}`,
      dash: linePattern(pattern),
      stroke: isSubject ? 'ink' : 'bar',
      strokeWidth: isSubject ? 3 : 2,
    },
    written([`${name}  ${formatValue(newest, unit, decimals)}`], {
      key: `${key} name`,
      x: CAPTION + LEGEND_KEY + 8,
      y,
      style,
      ink: 'ink',
    }),
  ];
}

const captionOf = (data: TrendData): string =>
  data.series.every(({ answer }) => answer.samples === 0) ? 'No readings in this window' : trendCaption(data);

/** Breaches of its first line, remarks on its asset, alarms and flags of its metrics. */
function alongTrend({ asked, aligned, window, hours, assetId }: TrendData): AlongAsks | null {
  const { measures, band, groupBy, mark, cumulative, normalise } = asked;
  // With lines counted from different dates, nothing along the time applies to all of them.
  if (aligned) return null;
  const metricIds = [...new Set(measures.map(({ metricId }) => metricId))];
  const isJudged = band !== null && !groupBy && !cumulative && mark !== 'stacked' && normalise === null;
  return {
    window,
    levels: isJudged ? { measure: measures[0], band, ...window, bucket: asked.bucket, hours } : null,
    assetId,
    alarms: metricIds,
    flags: groupBy ? [] : metricIds,
  };
}

/** One row per time of any line, one column per line. */
function trendTable({ series }: TrendData): Table {
  const times = [...new Set(series.flatMap(({ answer }) => answer.t))].sort((a, b) => a - b);
  const values = series.map(({ answer: { t, v } }) => new Map(t.map((at, i) => [at, v[i]])));
  return {
    columns: [
      { name: 'Time', unit: '', isTime: true },
      ...series.map(({ name, answer }) => ({ name, unit: answer.unit })),
    ],
    rows: times.map((at) => [at, ...values.map((known) => known.get(at) ?? null)]),
  };
}
