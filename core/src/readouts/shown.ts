import { joinHours, joinScopes } from '../board/joinScopes';
import type { Asset } from '../api/assets';
import type { HoursFilter } from '../time/hoursFilter';
import type { Metric } from '../api/metrics';
import type { BaseReadout } from '../board/choices';
import type { Scope } from '../domain/query';
import type { WindowSpec } from '../time/windowSpec';

/** The filters that all readouts of a board share. */
export interface BoardView {
  readonly window: WindowSpec;
  readonly scope: Scope;
  readonly hours: HoursFilter | null;
  /** The focused asset; null = none. */
  readonly focus: string | null;
}

/** A readout with its own choices joined with the filters of its board. */
export interface ShownReadout<R extends BaseReadout = BaseReadout> {
  readonly readout: R;
  readonly window: WindowSpec;
  readonly scope: Scope;
  readonly hours: HoursFilter | null;
  /** Whether the focus replaced its metrics by those of another asset. */
  readonly follows: boolean;
}

/** Metrics and assets that a readout names, as far as loaded. */
export interface Lookups {
  readonly metrics: ReadonlyMap<string, Metric>;
  /** All metrics of the focused asset; empty without a focus. */
  readonly ofFocus: readonly Metric[];
  /** The assets of its scope and of the board's. */
  readonly assets: ReadonlyMap<string, Asset>;
}

/**
 * Joins a readout with the filters of its board. With a focus, a readout of single metrics shows the focused
 * asset's metrics of the same names, if it has them all; grouped readouts keep theirs and mark the focus.
 */
export function resolveReadout<R extends BaseReadout>(
  readout: R,
  look: BoardView,
  { metrics, ofFocus, assets }: Lookups,
): ShownReadout<R> {
  const followed = look.focus && !readout.groupBy ? withAsset(readout, metrics, ofFocus) : null;
  return {
    readout: followed ?? readout,
    window: readout.window ?? look.window,
    scope: joinScopes(look.scope, readout.scope, (id) => assets.get(id)?.path),
    hours: joinHours(look.hours, readout.hours),
    follows: followed !== null,
  };
}

/** The readout with another asset's metrics of the same names; null if one is missing. */
function withAsset<R extends BaseReadout>(
  readout: R,
  metrics: Lookups['metrics'],
  ofOther: readonly Metric[],
): R | null {
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
  // A custom title names the old asset, so the automatic one is used.
  return { ...readout, title: null, measures: measures as R['measures'] };
}
