import { extent } from 'd3-array';

const found = new WeakMap<readonly (number | null)[], readonly number[]>();

/** Lowest and highest of the values that are known; none where nothing is. Found once for each list. */
export function knownExtent(values: readonly (number | null)[]): readonly number[] {
  let ends = found.get(values);
  if (!ends) {
    // It passes over null itself; its types do not say so.
    const [low, high] = extent(values as readonly number[]);
    ends = low === undefined ? [] : [low, high];
    found.set(values, ends);
  }
  return ends;
}
