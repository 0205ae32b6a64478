import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  decimalsFor,
  MINUTE_MS,
  scaleEnds,
  type Asset,
  type Metric,
  type QueryAnswer,
  type Reading,
  type Readout,
} from '@vivid-beacon/core';
import { call } from '../api/client';
import { useAssets, useMetrics } from '../api/queries';
import { useSameList } from '../hooks/useSameList';
import { useKept } from '../hooks/useKept';
import { useBoardLook } from './BoardLookContext';
import { displayed } from './displayed';
import { measureNames } from './measureNames';
import { groupQuery, levelFor, partsOfGroups, type Part } from './parts';
import { resolveReadout, type ShownReadout } from './resolveReadout';

const NO_METRICS: readonly Metric[] = [];
const NO_ASSETS: readonly Asset[] = [];

/** A readout joined with the look of its board, and the metrics by id. */
export function useShown(readout: Readout): { shown: ShownReadout; metrics: ReadonlyMap<string, Metric> } {
  const look = useBoardLook();
  const metrics = useMetrics().data ?? NO_METRICS;
  const assets = useAssets().data ?? NO_ASSETS;
  const byId = useMemo(() => new Map(metrics.map((metric) => [metric.id, metric])), [metrics]);
  const shown = useMemo(
    () => resolveReadout(readout, look, metrics, assets),
    [readout, look, metrics, assets],
  );
  return { shown, metrics: byId };
}

/** The values of a readout, as far as they have come. */
export interface PartsAnswer {
  readonly parts: readonly Part[] | undefined;
  readonly error: Error | null;
  /** Old values that stay until the new ones are there. */
  readonly old: boolean;
  readonly again: () => void;
  readonly decimals: number;
  /** With band and ends as they are shown. */
  readonly shown: ShownReadout;
}

/** Reads the values of a readout: one a measure, or one a group. */
export function useParts(readout: Readout): PartsAnswer {
  const { shown, metrics } = useShown(readout);
  const grouped = shown.readout.groupBy !== null;
  const query = grouped && shown.readout.measures.length > 0 ? groupQuery(shown, metrics, null) : null;
  const groups = useQuery({
    queryKey: ['readings', 'query', query],
    queryFn: ({ signal }) => call<QueryAnswer>('POST', '/api/readings/query', query, signal),
    enabled: query !== null,
    placeholderData: keepPreviousData,
    refetchInterval: MINUTE_MS,
    retry: false,
  });
  const singles = useQueries({
    queries: (grouped ? [] : shown.readout.measures).map((measure) => {
      const ask = {
        measure,
        window: shown.window,
        band: shown.readout.band,
        hours: shown.hours,
        compare: shown.readout.compare === 'lastYear' ? 'lastYear' : 'before',
      };
      return {
        queryKey: ['readings', 'value', ask],
        queryFn: ({ signal }: { signal: AbortSignal }) =>
          call<Reading>('POST', '/api/readings/value', ask, signal),
        refetchInterval: MINUTE_MS,
      };
    }),
  });
  const answers = useSameList(singles.map(({ data }) => data as Reading | undefined));
  const whole = answers.every((answer) => answer !== undefined);
  const read = useMemo(() => {
    const own = shown.readout;
    if (own.measures.length === 0) return [];
    if (grouped) return groups.data && partsOfGroups(groups.data, own, metrics);
    return whole ? answers.map((answer, i) => partOfReading(answer!, i, own, metrics)) : undefined;
  }, [grouped, groups.data, whole, shown.readout, metrics, answers]);
  const kept = useKept(read);
  const failed = grouped ? groups : singles.find(({ isError }) => isError);
  const inDisplay = displayed(shown.readout, kept.value ?? []);
  return {
    parts: kept.value && inDisplay.parts,
    error: (failed?.error as Error | null | undefined) ?? null,
    old: kept.old || (grouped && groups.isPlaceholderData),
    again: () => void (grouped ? groups.refetch() : Promise.all(singles.map(({ refetch }) => refetch()))),
    decimals: decimalsOf(inDisplay.readout, inDisplay.parts),
    shown: { ...shown, readout: inDisplay.readout },
  };
}

function partOfReading(
  reading: Reading,
  i: number,
  readout: Readout,
  metrics: ReadonlyMap<string, Metric>,
): Part {
  const { metricId, per } = readout.measures[i];
  const metric = metrics.get(metricId);
  return {
    key: `${i} ${metricId}`,
    name: measureNames(readout.measures, metrics)[i],
    assetId: metric?.assetId ?? null,
    metricIds: per ? [metricId, per.metricId] : [metricId],
    perMetricIds: [],
    within: 0,
    value: reading.value,
    unit: reading.unit,
    level: i === 0 ? reading.level : levelFor(readout, reading.value, reading.coverage),
    coverage: reading.coverage,
    samples: reading.provenance.parts.reduce((n, { samples }) => n + samples, 0),
    previous: previousOf(readout, reading, i),
    partial: reading.partial,
    reading,
  };
}

/** What the value is compared with: of an indicator its own reference. */
function previousOf({ compare, reference }: Readout, reading: Reading, i: number): number | null {
  if (reference && i === 0) return reference.value;
  return compare === 'none' ? null : reading.previous;
}

/** As set, or so that about three figures of the scale are seen. */
export function decimalsOf(readout: Readout, parts: readonly Pick<Part, 'value'>[]): number {
  if (readout.decimals !== null) return readout.decimals;
  const [low, high] = scaleEnds(
    readout.band,
    parts.map(({ value }) => value ?? NaN),
  );
  return decimalsFor(low, high);
}
