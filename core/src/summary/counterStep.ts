/**
 * What a counter gained between two readings. A fall is a rollover if the metric has a rollover value and the
 * step across it is the smaller one; otherwise a reset to 0.
 * @example counterStep(990, 5, 1000) // => 15
 */
export function counterStep(before: number, after: number, rollover: number | null): number {
  if (after >= before) return after - before;
  if (rollover !== null && before < rollover) {
    const overRollover = rollover - before + after;
    if (overRollover < rollover / 2) return overRollover;
  }
  return after;
}
