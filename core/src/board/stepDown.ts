import type { BaseReadout } from '../board/choices';
import type { GroupBy } from '../domain/query';
import type { ReadoutValue } from '../readouts/readoutValues';
import { scopeOfGroup } from '../scope/groupScope';
import type { PathOf } from './joinScopes';

/** A step down from a value to its parts: what is grouped then, and where. */
export interface Step {
  /** What it went down into: "Quayside". */
  readonly label: string;
  readonly choices: Pick<BaseReadout, 'groupBy' | 'scope' | 'steps' | 'measures'>;
}

/**
 * The parts of a value: by the next grouping that the readout steps through, else the assets right below its own.
 * Null where neither says what its parts are.
 *
 * A value of Maker Acme in a readout that steps through types becomes groups by type, only of Maker Acme.
 */
export function stepDown(readout: BaseReadout, value: ReadoutValue, pathOf: PathOf): Step | null {
  const { groupBy, steps } = readout;
  const scope =
    groupBy && value.group ? scopeOfGroup(groupBy, value.group, readout.scope, pathOf) : readout.scope;
  if (groupBy && scope === null) return null;
  const [next = partsOf(groupBy, value), ...rest] = steps;
  if (next === null) return null;
  const measures = groupBy ? readout.measures : [readout.measures[value.measure]];
  const label = value.group?.name.split(' / ').at(-1) || value.name;
  return { label, choices: { groupBy: next, scope, steps: rest, measures } };
}

function partsOf(by: GroupBy | null, { assetId }: ReadoutValue): GroupBy | null {
  if (assetId !== null) return { kind: 'part', assetId };
  return by?.kind === 'attribute' ? { kind: 'asset' } : null;
}
