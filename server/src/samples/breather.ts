import { setImmediate } from 'node:timers/promises';

/** So long work goes on before others get their turn, ms. */
const MAX_MS = 30;

/** Makes a pause for long work: called often, it lets others have their turn when it is time. */
export function breather(): () => Promise<void> {
  let last = performance.now();
  return async () => {
    if (performance.now() - last < MAX_MS) return;
    await setImmediate();
    last = performance.now();
  };
}
