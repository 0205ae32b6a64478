import { useMemo } from 'react';
import type { Metric, Readout } from '@vivid-beacon/core';
import {
  resolveReadout,
  type Lookups,
  type ShownReadout,
  metricsOfBoard,
} from '@vivid-beacon/core/src/boards';
import { useAssetsById, useMetricsById, useMetricsOf } from '../api/catalogue';
import { useBoardFilters, type BoardFilters } from './BoardFiltersContext';

/**
 * The metrics and assets that readouts name, as far as loaded: their metrics, those of the focused asset, and
 * the assets of their scopes. All readouts of a board share one request.
 */
export function useKnown(
  readouts: readonly Readout[],
  { scope, focus }: Pick<BoardFilters, 'scope' | 'focus'>,
): Lookups & { readonly whole: boolean } {
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

/** A readout joined with the filters of its board, and its metrics by id. */
export function useShown(readout: Readout): {
  readonly shown: ShownReadout<Readout>;
  readonly metrics: ReadonlyMap<string, Metric>;
  /** Whether everything it names is loaded. */
  readonly whole: boolean;
} {
  const filters = useBoardFilters();
  const readouts = useMemo(() => [readout], [readout]);
  const known = useKnown(readouts, filters);
  const shown = useMemo(() => resolveReadout(readout, filters, known), [readout, filters, known]);
  const metrics = useMemo(
    () =>
      known.ofFocus.length === 0
        ? known.metrics
        : new Map([...known.metrics, ...known.ofFocus.map((metric) => [metric.id, metric] as const)]),
    [known],
  );
  return { shown, metrics, whole: known.whole };
}
