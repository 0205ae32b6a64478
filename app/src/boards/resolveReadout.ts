import {
  joinHours,
  joinScopes,
  type Asset,
  type HoursFilter,
  type Metric,
  type Readout,
  type Scope,
  type WindowSpec,
} from '@vivid-beacon/core';
import type { BoardLook } from './BoardLookContext';

/** A readout with what it answers to: its own choices joined with those of its board. */
export interface ShownReadout {
  readonly readout: Readout;
  readonly window: WindowSpec;
  readonly scope: Scope;
  readonly hours: HoursFilter | null;
  /** True where the focus put another asset's metrics in the place of its own. */
  readonly follows: boolean;
}

/**
 * Joins a readout with the look of its board. With a focus, a readout of single metrics shows the metrics of
 * the same name of the focused asset, if it has them all; grouped readouts keep theirs and mark the focus.
 */
export function resolveReadout(
  readout: Readout,
  look: Pick<BoardLook, 'window' | 'scope' | 'hours' | 'focus'>,
  metrics: readonly Metric[],
  assets: readonly Asset[],
): ShownReadout {
  const parents = new Map(assets.map(({ id, parentId }) => [id, parentId]));
  const followed = look.focus && !readout.groupBy ? withAsset(readout, look.focus, metrics) : null;
  return {
    readout: followed ?? readout,
    window: readout.window ?? look.window,
    scope: joinScopes(look.scope, readout.scope, (id) => parents.get(id)),
    hours: joinHours(look.hours, readout.hours),
    follows: followed !== null,
  };
}

/** The same readout over the metrics of the same names of another asset; null where it lacks one. */
function withAsset(readout: Readout, assetId: string, metrics: readonly Metric[]): Readout | null {
  const byId = new Map(metrics.map((metric) => [metric.id, metric]));
  const own = metrics.filter((metric) => metric.assetId === assetId);
  const swap = (id: string): string | null => {
    const metric = byId.get(id);
    const same = own.find(
      (each) => each.name === metric?.name && each.unit === metric.unit && each.kind === metric.kind,
    );
    return same?.id ?? null;
  };
  const measures = readout.measures.map((measure) => {
    const metricId = swap(measure.metricId);
    const per = measure.per && swap(measure.per.metricId);
    if (!metricId || (measure.per && !per)) return null;
    return { ...measure, metricId, per: measure.per && { ...measure.per, metricId: per! } };
  });
  if (measures.length === 0 || measures.includes(null)) return null;
  if (measures.every((measure, i) => measure!.metricId === readout.measures[i].metricId)) return null;
  // A title of its own names the old asset; the automatic one names the new.
  return { ...readout, title: null, measures: measures as Readout['measures'] };
}
