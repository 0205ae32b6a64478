import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { decimalsFor, MINUTE_MS, scaleEnds, type Asset, type Metric, type Readout } from '@vivid-beacon/core';
import { askQuery, useAssets, useMetrics } from '../api/queries';
import { useKept } from '../hooks/useKept';
import { useBoardLook } from './BoardLookContext';
import { displayed } from './displayed';
import { partsOf, readoutQuery, type Part } from './parts';
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
  const query = readoutQuery(shown, metrics, null);
  const answer = useQuery({
    queryKey: ['readings', 'query', query],
    queryFn: ({ signal }) => askQuery(query!, signal),
    enabled: query !== null,
    refetchInterval: MINUTE_MS,
    retry: false,
  });
  const own = shown.readout;
  const read = useMemo(() => {
    if (own.measures.length === 0) return [];
    return answer.data && partsOf(answer.data, own, metrics);
  }, [answer.data, own, metrics]);
  const kept = useKept(read);
  const inDisplay = displayed(own, kept.value ?? []);
  return {
    parts: kept.value && inDisplay.parts,
    error: answer.error,
    old: kept.old,
    again: () => void answer.refetch(),
    decimals: decimalsOf(inDisplay.readout, inDisplay.parts),
    shown: { ...shown, readout: inDisplay.readout },
  };
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
