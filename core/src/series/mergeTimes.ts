/** The union of several columns of times. @param columns each strictly increasing, ms. */
export function mergeTimes(columns: readonly Float64Array[]): Float64Array {
  if (columns.length === 0) return new Float64Array(0);
  // Merged in pairs, so that no time is moved more often than needed.
  let round = columns;
  while (round.length > 1) {
    const next: Float64Array[] = [];
    for (let i = 0; i < round.length; i += 2) {
      next.push(i + 1 < round.length ? mergeTwo(round[i], round[i + 1]) : round[i]);
    }
    round = next;
  }
  return round[0];
}

function mergeTwo(a: Float64Array, b: Float64Array): Float64Array {
  const out = new Float64Array(a.length + b.length);
  let n = 0;
  for (let i = 0, j = 0; i < a.length || j < b.length; n++) {
    const [x, y] = [i < a.length ? a[i] : Infinity, j < b.length ? b[j] : Infinity];
    out[n] = Math.min(x, y);
    if (x <= y) i++;
    if (y <= x) j++;
  }
  return out.subarray(0, n);
}
