/** A frame comes by then also where the browser draws none, as in a tab that was just hidden, ms. */
const LATEST_MS = 250;

/**
 * Does work in the order it comes: at once while nothing more is under way, else with all else that comes until the
 * next frame. Sixteen answers that come together are so drawn together, and the page is laid out once.
 *
 * @param more is something else under way whose work will come too?
 */
export function togetherPerFrame(more: () => boolean): (work: () => void) => void {
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
