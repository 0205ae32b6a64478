/**
 * What a counter gained between two readings. A fall is a rollover where the metric has one and the step
 * over it is the smaller one, else a reset: the counter began again at 0.
 */
export function counterStep(before: number, after: number, rollover: number | null): number {
  if (after >= before) return after - before;
  if (rollover !== null && before < rollover) {
    const overRollover = rollover - before + after;
    if (overRollover < rollover / 2) return overRollover;
  }
  return after;
}
