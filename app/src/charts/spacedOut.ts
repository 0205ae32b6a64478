/** Positions along a line at least `room` px apart; overlapping marks are drawn once. */
export function spacedOut(places: readonly number[], room: number): number[] {
  const out: number[] = [];
  for (const at of [...places].sort((a, b) => a - b)) {
    if (out.length === 0 || at - out[out.length - 1] >= room) out.push(at);
  }
  return out;
}
