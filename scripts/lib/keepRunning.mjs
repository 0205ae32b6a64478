import { setTimeout as sleep } from 'node:timers/promises';
import { stopProgram } from './children.mjs';
import { CannotGoOn } from './say.mjs';

const USUAL = { most: 5, withinMs: 60_000, waitMs: 1000 };

/**
 * Starts a program and restarts it whenever it ends by itself, until `stop`.
 *
 * @param name as it is said: "The server".
 * @param start starts it. @returns { child, ready }: the process, and a promise of when it works.
 * @param options `say` is told what happens; `onGivenUp` is called when it has ended more than `most` times
 * `withinMs`.
 * @returns what `ready` of the first start resolved to, `stop`, and `restart`, which ends it and starts it
 * anew.
 * @throws when it does not get ready the first time.
 */
export async function keepRunning(name, start, { say, onGivenUp, limits = USUAL }) {
  let stopping = false;
  let restarting = false;
  let current = start();
  const ends = [];

  const watch = (child) => {
    child.once('exit', (code, signal) => {
      if (!stopping && !restarting) void startAgain(signal ?? `code ${code}`);
    });
  };
  const startAgain = async (how) => {
    const now = Date.now();
    ends.push(now);
    const recent = ends.filter((t) => t > now - limits.withinMs).length;
    if (recent > limits.most) {
      say(`${name} ended ${recent} times in ${limits.withinMs / 1000} s (${how} last). Giving up.`);
      onGivenUp();
      return;
    }
    say(`${name} ended (${how}). Starting it again`);
    await sleep(limits.waitMs);
    await startAnew();
  };
  const startAnew = async () => {
    if (stopping) return;
    current = start();
    watch(current.child);
    // The watch notices one that ends before it is ready.
    await current.ready.then(
      () => say(`${name} works again`),
      () => undefined,
    );
  };

  let first;
  try {
    first = await current.ready;
  } catch (error) {
    throw new CannotGoOn(`${name} did not start: ${error.message}`);
  }
  watch(current.child);
  return {
    first,
    restart: async () => {
      if (stopping || restarting) return;
      restarting = true;
      await stopProgram(current.child);
      restarting = false;
      ends.length = 0;
      await startAnew();
    },
    stop: () => {
      stopping = true;
      return stopProgram(current.child);
    },
  };
}
