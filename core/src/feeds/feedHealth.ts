/** How a feed is doing. Times in ms. */
export interface FeedHealth {
  readonly state: 'reporting' | 'silent' | 'never';
  /** How long nothing came, up to now; null if nothing ever came. */
  readonly quietMs: number | null;
}

/** A feed is silent once nothing has come for the longest allowed gap, at least three logging intervals. */
export function feedHealth(
  last: number | null,
  intervalMs: number,
  maxGapMs: number,
  now: number,
): FeedHealth {
  if (last === null) return { state: 'never', quietMs: null };
  const quietMs = Math.max(0, now - last);
  return { state: quietMs > Math.max(maxGapMs, 3 * intervalMs) ? 'silent' : 'reporting', quietMs };
}
