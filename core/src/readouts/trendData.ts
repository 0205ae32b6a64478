import type { TrendAnswer } from '../api/readings';
import { scaleEnds } from '../bands/scaleEnds';
import type { BaseReadout } from '../board/choices';
import { runningTotal } from '../compare/runningTotal';
import { sinceStart } from '../compare/sinceStart';
import { periodCourse } from '../domain/periodCourse';
import type { QueryAnswer } from '../domain/query';
import { knownExtent } from '../drawing/knownExtent';
import type { TrendSeries } from '../drawing/trend/trendLayout';
import { displayDivisor, displayUnit } from '../format/displayScale';
import { decimalsFor } from '../format/format';
import { periodOfTrend } from '../time/automaticPeriod';
import type { Bucket } from '../time/buckets';
import type { HoursFilter } from '../time/hoursFilter';
import type { Interval } from '../time/interval';
import { DAY_MS, HOUR_MS, MINUTE_MS } from '../time/lengths';
import { localWindow } from '../time/localWindow';
import { resolveWindow } from '../time/window';
import { previousWindow, sameWindowLastYear } from '../time/previousWindow';
import { lengthOfWindow } from '../time/windowLength';
import type { WindowSpec } from '../time/windowSpec';
import { alignedStarts } from './alignedStarts';
import { scaledForDisplay } from './scaledForDisplay';
import { measureNames } from './measureNames';
import { readoutQuery, shortNames } from './readoutValues';
import { NOTHING_IN_SCOPE } from './valuesData';
import { inProportion } from './inProportion';
import type { TrendChoices } from './trendChoices';
import type { Problem, ReadData, ReadingAnswers, ReadingRequest, ReadoutInputs } from './readoutData';

export type TrendReadoutOf = BaseReadout & TrendChoices;

/** The lines of a readout: one per measure or per group; at least one. */
export interface TrendData extends ReadData {
  readonly series: readonly TrendSeries[];
  /** The reference line, shifted into the window. */
  readonly reference: TrendSeries | null;
  /** Band and ends scaled for display. */
  readonly readout: TrendReadoutOf;
  /** Band and ends as chosen. */
  readonly asked: TrendReadoutOf;
  readonly hours: HoursFilter | null;
  /** Lines that cannot be drawn, each with the reason. */
  readonly leftOut: readonly string[];
  /** Whether times are counted from a start event. */
  readonly aligned: boolean;
  /** The asset of its first metric, whose remarks are shown; null for groups. */
  readonly assetId: string | null;
}

/** Nothing is drawn or read below this width. */
const MIN_COLUMNS = 10;
const MAX_COLUMNS = 4000;
/** Room for the axes at both sides of the plot, px. */
const BESIDE = 64;
/** With fewer periods than this in view, samples are read instead. */
const MIN_PERIODS = 24;
const LENGTH: Readonly<Partial<Record<Bucket, number>>> = {
  quarterHour: 15 * MINUTE_MS,
  hour: HOUR_MS,
  day: DAY_MS,
  week: 7 * DAY_MS,
};

/** Ids of the assets whose attributes the lines need: for alignment by a date. */
export function factsOfTrend(
  { readout, metrics }: Pick<ReadoutInputs<TrendChoices>, 'readout' | 'metrics'>,
  [answer]: ReadingAnswers,
): readonly string[] {
  if (readout.align === null) return [];
  const ids = readout.groupBy
    ? ((answer as QueryAnswer | undefined)?.groups ?? []).map(({ assetId }) => assetId)
    : readout.measures.map(({ metricId }) => metrics.get(metricId)?.assetId);
  return ids.filter((id) => id != null);
}

/** The requests of a trend, the reference last; null while a metric is not loaded or there is no room. */
export function trendRequests(inputs: ReadoutInputs<TrendChoices>): readonly ReadingRequest[] | null {
  const { readout, metrics, hours, view } = inputs;
  if (readout.measures.length === 0) return [];
  const columns = Math.min(MAX_COLUMNS, Math.round(view.width - BESIDE));
  if (columns < MIN_COLUMNS) return null;
  const plan = planOf(inputs);
  if (plan.grouped) {
    const ask = readoutQuery({ ...inputs, window: plan.window }, metrics, { bucket: plan.bucket });
    return ask && [{ kind: 'query', ask }];
  }
  const ask = (i: number, window: WindowSpec): ReadingRequest => ({
    kind: 'trend',
    ask: { measure: readout.measures[i], window, bucket: plan.bucket, columns, hours },
  });
  const compared = comparedSpans(inputs, plan);
  return [
    ...plan.lines.map(({ measure, window }) => ask(measure, window)),
    ...(compared ? [{ ...ask(0, localWindow(compared.before, plan.zone)), isExtra: true }] : []),
  ];
}

/** Turns the answers into lines. */
export function trendData(inputs: ReadoutInputs<TrendChoices>, answers: ReadingAnswers): TrendData | Problem {
  const { readout, metrics, hours } = inputs;
  if (readout.measures.length === 0) return NOTHING_IN_SCOPE;
  const plan = planOf(inputs);
  const names = measureNames(readout.measures, metrics);
  const read = plan.grouped
    ? seriesOfGroups(answers[0] as QueryAnswer, readout, plan.bucket!)
    : plan.lines.map(({ measure, start }, k): TrendSeries => {
        const answer = answers[k] as TrendAnswer;
        const { metricId } = readout.measures[measure];
        return {
          key: `${measure} ${metricId}`,
          name: names[measure],
          assetId: metrics.get(metricId)?.assetId ?? null,
          answer: inDisplay(start === null ? answer : sinceStart(answer, start), readout),
        };
      });
  const { series, leftOut } = inProportion(
    read.filter(({ answer }) => !answer.lacksAttribute),
    readout.normalise,
  );
  const undated = plan.undated.map((i) => {
    const name = metrics.get(readout.measures[i].metricId)?.assetName ?? 'removed metric';
    return `${name} (no date in ${readout.align!.attribute})`;
  });
  const undivided = read.filter(({ answer }) => answer.lacksAttribute).map(({ name }) => name);
  const notDrawn = [
    ...undated,
    ...undivided.map((name) => `${name} (${withoutWords(readout.measures)})`),
    ...leftOut,
  ];
  if (series.length === 0) {
    if (notDrawn.length === 0) return NOTHING_IN_SCOPE;
    return { problem: { title: 'No line can be drawn so', text: `Not drawn: ${notDrawn.join(', ')}.` } };
  }
  const shown = inOwnUnits(scaledForDisplay(readout, []).readout);
  const running = series.map((each, pattern) => ({
    ...runningOf(each, readout, inputs.view.zoomed),
    pattern,
  }));
  const reference = referenceOf(inputs, plan, answers[plan.lines.length] as TrendAnswer | undefined);
  return {
    series: running,
    reference: reference && runningOf(reference, readout, null),
    decimals: decimalsOf(shown, series),
    readout: shown,
    asked: readout,
    hours,
    leftOut: notDrawn,
    aligned: plan.aligned,
    assetId: readout.groupBy ? null : (metrics.get(readout.measures[0].metricId)?.assetId ?? null),
    window: running[0].answer.window,
    zone: series[0].answer.zone,
    now: series[0].answer.now,
  };
}

/** The lines to read, with their windows and periods. */
interface Plan {
  readonly grouped: boolean;
  readonly zone: string;
  /** For all lines, if they are not aligned. */
  readonly window: WindowSpec;
  readonly bucket: Bucket | null;
  readonly aligned: boolean;
  /** Single measures to read; `start` = start event in ms, null = by date. */
  readonly lines: readonly {
    readonly measure: number;
    readonly window: WindowSpec;
    readonly start: number | null;
  }[];
  /** Measures whose asset has no date for alignment. */
  readonly undated: readonly number[];
}

function planOf({ readout, metrics, facts, window: whole, view }: ReadoutInputs<TrendChoices>): Plan {
  const { measures, align } = readout;
  const grouped = readout.groupBy !== null;
  const zone = metrics.get(measures[0].metricId)?.zone ?? 'UTC';
  const starts = alignedStarts(readout, metrics, facts);
  // A running total is read from its beginning; the stretch looked at is cut out of it.
  const zoomed = readout.cumulative ? null : view.zoomed;
  const window = zoomed && !starts ? localWindow(zoomed, zone) : whole;
  const length = starts ? align!.days * DAY_MS : lengthOfWindow(window, zone);
  const windowOf = (i: number): WindowSpec => {
    const start = starts?.[i];
    if (start == null) return window;
    const { start: from, end: to } = zoomed ?? { start: 0, end: length };
    // Written in local time of the metric's site, so it is parsed in that zone.
    const site = metrics.get(measures[i].metricId)?.zone ?? zone;
    return localWindow({ start: start + from, end: start + to }, site);
  };
  const dated = measures.map((_, i) => i).filter((i) => starts?.[i] !== null);
  return {
    grouped,
    zone,
    window,
    bucket: bucketFor(readout, zoomed, grouped, length),
    aligned: starts !== null,
    lines: grouped ? [] : dated.map((i) => ({ measure: i, window: windowOf(i), start: starts?.[i] ?? null })),
    undated: starts === null ? [] : measures.map((_, i) => i).filter((i) => starts[i] === null),
  };
}

function bucketFor(
  readout: TrendReadoutOf,
  zoomed: Interval | null,
  grouped: boolean,
  length: number,
): Bucket | null {
  const needsPeriods = grouped || readout.cumulative || readout.mark === 'stacked';
  const wanted = readout.bucket ?? (needsPeriods ? periodOfTrend(length) : null);
  if (!zoomed || wanted === null) return wanted;
  const periods = (zoomed.end - zoomed.start) / (LENGTH[wanted] ?? 30 * DAY_MS);
  if (periods >= MIN_PERIODS) return wanted;
  return grouped ? 'quarterHour' : null;
}

/** A line as it is read everywhere: on the curve, in the legend, spoken and exported. */
function runningOf(
  series: TrendSeries,
  { cumulative }: TrendReadoutOf,
  zoomed: Interval | null,
): TrendSeries {
  if (!cumulative) return series;
  const { answer } = series;
  const running = { ...answer, v: runningTotal(answer.v), thin: [] };
  const end = zoomed?.end ?? Infinity;
  const missing = answer.v.filter((value, i) => value === null && answer.t[i] < end).length;
  return { ...series, missing, answer: zoomed ? partOf(running, zoomed) : running };
}

/** The periods of an answer that touch a stretch of its time. */
function partOf(answer: TrendAnswer, { start, end }: Interval): TrendAnswer {
  const { t, until } = answer;
  const touches = (_: unknown, i: number): boolean => t[i] < end && (until?.[i] ?? t[i] + 1) > start;
  return {
    ...answer,
    t: t.filter(touches),
    v: answer.v.filter(touches),
    until: until && until.filter(touches),
    window: { start, end },
  };
}

/** The window, and the earlier one a single line is compared with; null = none. */
function comparedSpans(
  { readout, window, view }: ReadoutInputs<TrendChoices>,
  { grouped, aligned, zone }: Plan,
): { readonly window: Interval; readonly before: Interval } | null {
  const { compare, measures } = readout;
  if (compare === 'none' || grouped || aligned || measures.length !== 1 || view.zoomed) return null;
  const find = compare === 'lastYear' ? sameWindowLastYear : previousWindow;
  const before = find(window, view.now, zone);
  return before.end > before.start ? { window: resolveWindow(window, view.now, zone), before } : null;
}

/** The reference line, with its times shifted into the window. */
function referenceOf(
  inputs: ReadoutInputs<TrendChoices>,
  plan: Plan,
  answer: TrendAnswer | undefined,
): TrendSeries | null {
  const spans = comparedSpans(inputs, plan);
  if (!spans || !answer) return null;
  const { readout } = inputs;
  const shift = spans.window.start - spans.before.start;
  const moved: TrendSeries = {
    key: 'reference',
    name: readout.compare === 'lastYear' ? 'last year' : 'before',
    assetId: null,
    answer: {
      ...inDisplay(answer, readout),
      t: answer.t.map((at) => at + shift),
      until: answer.until && answer.until.map((at) => at + shift),
      window: spans.window,
      thin: [],
      gaps: [],
    },
  };
  return inProportion([moved], readout.normalise).series[0] ?? null;
}

/** "no Floor area (m²)". */
const withoutWords = (measures: BaseReadout['measures']): string =>
  `no ${measures.find(({ perAttribute }) => perAttribute != null)?.perAttribute ?? 'attribute'}`;

/** Band and ends in the unit of the metric do not apply to normalised lines. */
function inOwnUnits(readout: TrendReadoutOf): TrendReadoutOf {
  return readout.normalise === null
    ? readout
    : { ...readout, band: null, secondBand: null, scale: { ...readout.scale, ends: null } };
}

function inDisplay(answer: TrendAnswer, { display }: BaseReadout): TrendAnswer {
  const by = displayDivisor(display);
  if (by === 1) return answer;
  return {
    ...answer,
    unit: displayUnit(answer.unit, display),
    v: answer.v.map((value) => (value === null ? null : value / by)),
    thin: answer.thin?.map((each) => ({ ...each, value: each.value / by })),
  };
}

function seriesOfGroups(answer: QueryAnswer, readout: TrendReadoutOf, bucket: Bucket): TrendSeries[] {
  const groups = answer.groups.filter(({ name }) => name !== '' || readout.keepBlanks);
  const names = shortNames(groups.map(({ name }) => name));
  const { start, end, window, zone, now, units } = answer;
  return groups.map(({ name, assetId, measures: [byPeriod] }, i) => ({
    key: name || 'blank',
    name: names[i] || 'not named',
    assetId,
    answer: inDisplay(
      {
        window,
        zone,
        now,
        unit: readout.measures[0].per?.unit ?? units[0],
        ...periodCourse({ start, end }, byPeriod, bucket, now),
        lacksAttribute: (byPeriod.withoutAttribute ?? 0) > 0 && byPeriod.metricIds.length === 0,
      },
      readout,
    ),
  }));
}

function decimalsOf(readout: TrendReadoutOf, series: readonly TrendSeries[]): number {
  if (readout.decimals !== null) return readout.decimals;
  return decimalsFor(
    ...scaleEnds(
      readout.band,
      series.flatMap(({ answer }) => knownExtent(answer.v)),
    ),
  );
}
