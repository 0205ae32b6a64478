/** Fallback for tabs that get no animation frames, such as hidden ones, ms. */
const LATEST_MS = 250;

/**
 * Runs work in order: at once if nothing else is pending, otherwise batched until the next frame, so that
 * sixteen answers arriving together cause one layout.
 *
 * @param more is something else under way whose work will come too?
 */
export function frameBatcher(more: () => boolean): (work: () => void) => void {
  let waiting: (() => void)[] = [];
  const run = (): void => {
    const all = waiting;
    waiting = [];
    for (const work of all) work();
  };
  return (work) => {
    waiting.push(work);
    if (waiting.length > 1) return;
    if (document.visibilityState === 'visible' && more()) atNextFrame(run);
    else queueMicrotask(run);
  };
}

function atNextFrame(run: () => void): void {
  let done = false;
  const once = (): void => {
    if (done) return;
    done = true;
    clearTimeout(late);
    run();
  };
  const late = setTimeout(once, LATEST_MS);
  requestAnimationFrame(once);
}
