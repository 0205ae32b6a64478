import { addsUp } from '../domain/measure';
import type { ReadoutValue } from '../readouts/readoutValues';
import { bandOfMeasure } from '../readouts/moreBands';
import { scopeOfGroup } from '../scope/groupScope';
import type { PathOf } from './joinScopes';
import { makeReadout, type Readout } from './board';

/**
 * A value of a readout over its stretch of time, as a trend. Limits of an amount are those of the whole stretch, so they are
 * left out. Null where no scope says which assets its group has.
 */
export function trendOfValue(readout: Readout, value: ReadoutValue, pathOf: PathOf): Readout | null {
  const { groupBy } = readout;
  const measure = readout.measures.at(value.measure);
  if (!measure) return null;
  const scope =
    groupBy && value.group ? scopeOfGroup(groupBy, value.group, readout.scope, pathOf) : readout.scope;
  if (groupBy && scope === null) return null;
  return makeReadout('value', 'trend', {
    measures: [measure],
    title: value.name || null,
    window: value.over ?? readout.window,
    hours: readout.hours,
    groupBy: groupBy && { kind: 'all' },
    scope,
    band: addsUp(measure) ? null : bandOfMeasure(readout, value.measure),
    display: readout.display,
    decimals: readout.decimals,
  });
}
