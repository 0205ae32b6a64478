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

/** What is known of the metrics and assets a readout names. */
export interface Known {
  readonly metrics: ReadonlyMap<string, Metric>;
  /** All metrics of the focused asset; empty without a focus. */
  readonly ofFocus: readonly Metric[];
  /** The assets of its scope and of the board's. */
  readonly assets: ReadonlyMap<string, Asset>;
}

/**
 * Joins a readout with the look of its board. With a focus, a readout of single metrics shows the metrics of
 * the same name of the focused asset, if it has them all; grouped readouts keep theirs and mark the focus.
 */
export function resolveReadout(
  readout: Readout,
  look: Pick<BoardLook, 'window' | 'scope' | 'hours' | 'focus'>,
  { metrics, ofFocus, assets }: Known,
): ShownReadout {
  const followed = look.focus && !readout.groupBy ? withAsset(readout, metrics, ofFocus) : null;
  return {
    readout: followed ?? readout,
    window: readout.window ?? look.window,
    scope: joinScopes(look.scope, readout.scope, (id) => assets.get(id)?.path),
    hours: joinHours(look.hours, readout.hours),
    follows: followed !== null,
  };
}

/** The same readout over the metrics of the same names of another asset; null where it lacks one. */
function withAsset(readout: Readout, metrics: Known['metrics'], ofOther: readonly Metric[]): Readout | null {
  const swap = (id: string): string | null => {
    const metric = metrics.get(id);
    const same = ofOther.find(
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
