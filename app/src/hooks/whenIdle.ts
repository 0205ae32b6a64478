/** Longest that something waits for the browser to be idle, ms. */
const LATEST_MS = 1000;

/** Runs a function when the browser is idle. @returns a function that cancels it. */
export function whenIdle(work: () => void): () => void {
  // Not every browser has requestIdleCallback.
  if (typeof requestIdleCallback !== 'function') {
    const timer = setTimeout(work, 100);
    return () => clearTimeout(timer);
  }
  const asked = requestIdleCallback(work, { timeout: LATEST_MS });
  return () => cancelIdleCallback(asked);
}
