/** Longest that something waits for the browser to be idle, ms. */
const LATEST_MS = 1000;

/** Does something once the browser has nothing more urgent to do. @returns lets it be. */
export function whenIdle(work: () => void): () => void {
  // Not every browser tells when it is idle.
  if (typeof requestIdleCallback !== 'function') {
    const timer = setTimeout(work, 100);
    return () => clearTimeout(timer);
  }
  const asked = requestIdleCallback(work, { timeout: LATEST_MS });
  return () => cancelIdleCallback(asked);
}
