import { extent } from 'd3-array';

/** Lowest and highest of the values that are known; none where nothing is. */
export function knownExtent(values: readonly (number | null)[]): readonly number[] {
  // It passes over null itself; its types do not say so.
  const [low, high] = extent(values as readonly number[]);
  return low === undefined ? [] : [low, high];
}
