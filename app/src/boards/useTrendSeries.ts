import { askReading } from '../api/askTogether';
import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  periodOfTrend,
  coveredValue,
  DAY_MS,
  displayDivisor,
  displayUnit,
  HOUR_MS,
  MINUTE_MS,
  previousWindow,
  resolveWindow,
  sameWindowLastYear,
  sinceStart,
  type Bucket,
  type Interval,
  type Metric,
  type QueryAnswer,
  type Readout,
  type TrendAnswer,
  type TrendAsk,
} from '@vivid-beacon/core';
import { useAssetsById } from '../api/catalogue';
import type { TrendSeries } from '../charts/trendScene';
import { useSameList } from '../hooks/useSameList';
import { useKept } from '../hooks/useKept';
import { useNow } from '../hooks/useNow';
import { alignedStarts } from './alignedStarts';
import { displayed } from './displayed';
import { localWindow } from './localWindow';
import { readoutQuery, shortNames } from './parts';
import { measureNames } from './measureNames';
import { proportioned } from './proportioned';
import type { ShownReadout } from './resolveReadout';
import { useShown } from './useParts';
import { lengthOfWindow } from './windowLength';

export interface TrendData {
  readonly series: readonly TrendSeries[] | undefined;
  /** The subject over the time it is compared with, moved into the window. */
  readonly reference: TrendSeries | null;
  readonly error: Error | null;
  readonly old: boolean;
  readonly again: () => void;
  /** With band and ends as they are shown. */
  readonly shown: ShownReadout;
  /** With them as they were chosen: what the server is asked with. */
  readonly asked: Readout;
  /** One value for each, as it was read; null = samples. */
  readonly bucket: Bucket | null;
  /** Lines that cannot be drawn as was chosen, with the reason. */
  readonly leftOut: readonly string[];
  /** Are times counted from a start event? */
  readonly aligned: boolean;
  readonly metrics: ReadonlyMap<string, Metric>;
}

/** Zoomed in so far that fewer periods than this are left, samples are read instead. */
const FEWEST_PERIODS = 24;
const LENGTH: Readonly<Partial<Record<Bucket, number>>> = {
  quarterHour: 15 * MINUTE_MS,
  hour: HOUR_MS,
  day: DAY_MS,
  week: 7 * DAY_MS,
};

/**
 * Reads the lines of a trend: one a measure, or one a group.
 *
 * @param zoomed a stretch inside the window that is looked at instead; data is read as deep as it needs.
 */
export function useTrendSeries(readout: Readout, columns: number, zoomed: Interval | null): TrendData {
  const { shown, metrics, whole } = useShown(readout);
  const own = shown.readout;
  const zone = metrics.get(own.measures[0]?.metricId ?? '')?.zone ?? 'UTC';
  // Facts of assets matter only where lines are aligned by a date or put in proportion to a fact.
  const byFacts = own.align !== null || own.normalise?.by === 'attribute';
  const grouped = own.groupBy !== null;
  const facts = useAssetsById(
    byFacts && !grouped ? own.measures.map(({ metricId }) => metrics.get(metricId)?.assetId) : [],
  );
  const starts = useMemo(() => alignedStarts(own, metrics, facts.byId), [own, metrics, facts.byId]);
  const window = zoomed && !starts ? localWindow(zoomed, zone) : shown.window;
  const ownLength = useMemo(() => lengthOfWindow(window, zone), [window, zone]);
  const length = starts ? own.align!.days * DAY_MS : ownLength;
  const bucket = bucketFor(own, zoomed, grouped, length);
  const ready = columns >= 10 && own.measures.length > 0 && (!byFacts || (whole && facts.whole));
  const query = grouped ? readoutQuery({ ...shown, window }, metrics, bucket) : null;
  const groups = useQuery({
    queryKey: ['readings', 'query', query],
    queryFn: ({ signal }) => askReading('query', query!, signal),
    enabled: ready && query !== null,
    placeholderData: keepPreviousData,
    refetchInterval: MINUTE_MS,
    retry: false,
  });
  const ask = (measure: Readout['measures'][number], over = window) => ({
    measure,
    window: over,
    bucket,
    columns,
    hours: shown.hours,
  });
  /** Measures with a window: the board's, or so many days from their own start event on. */
  const asked = useMemo(
    () => (grouped || !ready ? [] : own.measures.map((_, i) => i).filter((i) => starts?.[i] !== null)),
    [grouped, ready, own.measures, starts],
  );
  const windowAt = (i: number): ShownReadout['window'] => {
    const start = starts?.[i];
    if (start == null) return window;
    const { start: from, end: to } = zoomed ?? { start: 0, end: length };
    // Written on the clock of the metric's own site: so it is read there.
    const site = metrics.get(own.measures[i].metricId)?.zone ?? zone;
    return localWindow({ start: start + from, end: start + to }, site);
  };
  const singles = useQueries({
    queries: asked.map((i) => {
      const body = ask(own.measures[i], windowAt(i));
      return {
        queryKey: ['readings', 'trend', body],
        queryFn: ({ signal }: { signal: AbortSignal }) => askReading('trend', body, signal),
        refetchInterval: MINUTE_MS,
      };
    }),
  });
  const reference = useReference(shown, zone, zoomed, ready && !grouped && !starts, ask);
  const answers = useSameList(singles.map(({ data }) => data));
  const read = answers.every((answer) => answer !== undefined);
  const series = useMemo(() => {
    if (grouped) return groups.data && seriesOfGroups(groups.data, own);
    if (!ready || !read) return undefined;
    return asked.map((i, k) => {
      const start = starts?.[i];
      const answer = start == null ? answers[k]! : sinceStart(answers[k]!, start);
      return seriesOf(answer, i, own.measures[i], own, metrics);
    });
  }, [grouped, groups.data, ready, read, own, metrics, starts, asked, answers]);
  const kept = useKept(series);
  const groupFacts = useAssetsById(
    byFacts && grouped ? (groups.data?.groups ?? []).map(({ assetId }) => assetId) : [],
  );
  const assetsById = grouped ? groupFacts.byId : facts.byId;
  const inProportion = useMemo(
    () => kept.value && proportioned(kept.value, own.normalise, assetsById),
    [kept.value, own.normalise, assetsById],
  );
  const reduced = useMemo(
    () => (reference ? (proportioned([reference], own.normalise, assetsById).series[0] ?? null) : null),
    [reference, own.normalise, assetsById],
  );
  const undated = (starts ?? []).flatMap((start, i) =>
    start === null
      ? [
          `${metrics.get(own.measures[i].metricId)?.assetName ?? 'removed metric'} (no date in ${own.align!.attribute})`,
        ]
      : [],
  );
  const failed = grouped ? groups : singles.find(({ isError }) => isError);
  return {
    series: inProportion?.series,
    reference: reduced,
    error: (failed?.error as Error | null | undefined) ?? null,
    old: kept.old || (grouped && groups.isPlaceholderData),
    again: () => void (grouped ? groups.refetch() : Promise.all(singles.map(({ refetch }) => refetch()))),
    shown: { ...shown, readout: inOwnUnits(displayed(own, []).readout) },
    asked: own,
    bucket,
    leftOut: [...undated, ...(inProportion?.leftOut ?? [])],
    aligned: starts !== null,
    metrics,
  };
}

/** In proportion, a band and ends in the unit of the metric mean nothing. */
function inOwnUnits(readout: Readout): Readout {
  return readout.normalise === null
    ? readout
    : { ...readout, band: null, secondBand: null, scale: { ...readout.scale, ends: null } };
}

function bucketFor(
  readout: Readout,
  zoomed: Interval | null,
  grouped: boolean,
  length: number,
): Bucket | null {
  const byItself = periodOfTrend(length);
  const wanted =
    readout.bucket ?? (grouped || readout.cumulative || readout.mark === 'stacked' ? byItself : null);
  if (!zoomed || wanted === null) return wanted;
  const periods = (zoomed.end - zoomed.start) / (LENGTH[wanted] ?? 30 * DAY_MS);
  if (periods >= FEWEST_PERIODS) return wanted;
  return grouped ? 'quarterHour' : null;
}

/** The subject over the window before, or last year, with its times moved onto this window. */
function useReference(
  shown: ShownReadout,
  zone: string,
  zoomed: Interval | null,
  on: boolean,
  ask: (measure: Readout['measures'][number], over?: ShownReadout['window']) => TrendAsk,
): TrendSeries | null {
  const now = useNow(MINUTE_MS);
  const { compare, measures } = shown.readout;
  const wanted = on && compare !== 'none' && measures.length === 1 && zoomed === null;
  const minute = Math.floor(now / MINUTE_MS) * MINUTE_MS;
  const spans = useMemo(() => {
    if (!wanted) return null;
    const window = resolveWindow(shown.window, minute, zone);
    const find = compare === 'lastYear' ? sameWindowLastYear : previousWindow;
    return { window, before: find(shown.window, minute, zone) };
  }, [wanted, compare, shown.window, minute, zone]);
  const body =
    spans && spans.before.end > spans.before.start ? ask(measures[0], localWindow(spans.before, zone)) : null;
  const query = useQuery({
    queryKey: ['readings', 'trend', body],
    queryFn: ({ signal }) => askReading('trend', body!, signal),
    enabled: body !== null,
    placeholderData: keepPreviousData,
  });
  return useMemo(() => {
    if (!spans || !query.data) return null;
    const shift = spans.window.start - spans.before.start;
    const { t, until } = query.data;
    return {
      key: 'reference',
      name: compare === 'lastYear' ? 'last year' : 'before',
      assetId: null,
      answer: {
        ...divided(query.data, shown.readout),
        t: t.map((at) => at + shift),
        until: until && until.map((at) => at + shift),
        window: spans.window,
        gaps: [],
      },
    };
  }, [spans, query.data, compare, shown.readout]);
}

function divided(answer: TrendAnswer, readout: Readout): TrendAnswer {
  const by = displayDivisor(readout.display);
  if (by === 1) return answer;
  return {
    ...answer,
    unit: displayUnit(answer.unit, readout.display),
    v: answer.v.map((value) => (value === null ? null : value / by)),
  };
}

function seriesOf(
  answer: TrendAnswer,
  i: number,
  measure: Readout['measures'][number],
  readout: Readout,
  metrics: ReadonlyMap<string, Metric>,
): TrendSeries {
  const metric = metrics.get(measure.metricId);
  return {
    key: `${i} ${measure.metricId}`,
    name: measureNames(readout.measures, metrics)[i],
    assetId: metric?.assetId ?? null,
    answer: divided(answer, readout),
  };
}

function seriesOfGroups(answer: QueryAnswer, readout: Readout): TrendSeries[] {
  const groups = answer.groups.filter(({ name }) => name !== '' || readout.keepBlanks);
  const names = shortNames(groups.map(({ name }) => name));
  const { start, end, window, zone, now, units } = answer;
  const passed = start.filter((at) => at < now).length;
  return groups.map(({ name, assetId, measures: [{ values, coverage, samples }] }, i) => ({
    key: name || 'blank',
    name: names[i] || 'not named',
    assetId,
    answer: divided(
      {
        window,
        zone,
        now,
        unit: readout.measures[0].per?.unit ?? units[0],
        t: start.slice(0, passed),
        until: end.slice(0, passed),
        v: values.slice(0, passed).map((value, k) => coveredValue({ value, coverage: coverage[k] })),
        gaps: [],
        samples: samples.reduce((sum, n) => sum + n, 0),
      },
      readout,
    ),
  }));
}
