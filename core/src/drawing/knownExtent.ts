const found = new WeakMap<readonly (number | null)[], readonly number[]>();

/** Lowest and highest known value; null if there is none. Computed once per list. */
export function knownExtent(values: readonly (number | null)[]): readonly number[] {
  let ends = found.get(values);
  if (!ends) {
    ends = extentOf(values);
    found.set(values, ends);
  }
  return ends;
}

/** A plain loop, because every drawing of a trend needs it for thousands of values. */
function extentOf(values: readonly (number | null)[]): readonly number[] {
  let low = Infinity;
  let high = -Infinity;
  for (const value of values) {
    if (value === null) continue;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return low <= high ? [low, high] : [];
}
