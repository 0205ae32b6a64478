import { askReading } from '../api/askTogether';
import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  decimalsFor,
  metricsOfBoard,
  MINUTE_MS,
  scaleEnds,
  type Metric,
  type Readout,
} from '@vivid-beacon/core';
import { useAssetsById, useMetricsById, useMetricsOf } from '../api/catalogue';
import { useKept } from '../hooks/useKept';
import { useBoardLook, type BoardLook } from './BoardLookContext';
import { displayed } from './displayed';
import { partsOf, readoutQuery, type Part } from './parts';
import { resolveReadout, type Known, type ShownReadout } from './resolveReadout';

/**
 * What readouts name, as far as it has come: their metrics, those of the focused asset, and the assets of their scopes.
 * All readouts of a board ask in one request.
 */
export function useKnown(
  readouts: readonly Readout[],
  { scope, focus }: Pick<BoardLook, 'scope' | 'focus'>,
): Known & { readonly whole: boolean } {
  const metrics = useMetricsById(metricsOfBoard({ readouts }));
  const focused = useMetricsOf(readouts.some(({ groupBy }) => groupBy === null) ? focus : null);
  // Two scopes meet only where both name assets.
  const own = readouts.flatMap((readout) => readout.scope?.assetIds ?? []);
  const assets = useAssetsById(own.length > 0 ? [...own, ...(scope.assetIds ?? [])] : []);
  const ofFocus = focused.data ?? NO_METRICS;
  const whole = metrics.whole && assets.whole;
  return useMemo(
    () => ({ metrics: metrics.byId, ofFocus, assets: assets.byId, whole }),
    [metrics.byId, ofFocus, assets.byId, whole],
  );
}

const NO_METRICS: readonly Metric[] = [];

/** A readout joined with the look of its board, and the metrics it names by id. */
export function useShown(readout: Readout): {
  readonly shown: ShownReadout;
  readonly metrics: ReadonlyMap<string, Metric>;
  /** Whether all it names has come. */
  readonly whole: boolean;
} {
  const look = useBoardLook();
  const readouts = useMemo(() => [readout], [readout]);
  const known = useKnown(readouts, look);
  const shown = useMemo(() => resolveReadout(readout, look, known), [readout, look, known]);
  const metrics = useMemo(
    () =>
      known.ofFocus.length === 0
        ? known.metrics
        : new Map([...known.metrics, ...known.ofFocus.map((metric) => [metric.id, metric] as const)]),
    [known],
  );
  return { shown, metrics, whole: known.whole };
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
    queryFn: ({ signal }) => askReading('query', query!, signal),
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
