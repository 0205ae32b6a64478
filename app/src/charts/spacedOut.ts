/** Of places along a line only those that leave each other `room` px: marks that would lie on one another are drawn once. */
export function spacedOut(places: readonly number[], room: number): number[] {
  const out: number[] = [];
  for (const at of [...places].sort((a, b) => a - b)) {
    if (out.length === 0 || at - out[out.length - 1] >= room) out.push(at);
  }
  return out;
}
