import { runServer } from '../../runServer';
import { readConfig } from '../../config';

/**
 * The server in a process of its own that tells how long its thread was held: a timer that should come every 20 ms is
 * late by as much. What other processes took meanwhile does not count: no more than the processor time used.
 */
const EVERY_MS = 20;
let longestMs = 0;
let last = performance.now();
let cpu = process.cpuUsage();
setInterval(() => {
  const now = performance.now();
  const used = process.cpuUsage(cpu);
  const held = Math.min(now - last - EVERY_MS, (used.user + used.system) / 1000);
  longestMs = Math.max(longestMs, held);
  last = now;
  cpu = process.cpuUsage();
}, EVERY_MS).unref();

export interface ServerState {
  /** Longest time the thread was held since it was asked last, ms. */
  readonly longestMs: number;
  /** What is in use after everything that can go has gone, bytes. */
  readonly heapUsed: number;
}

process.on('message', (message: { ask?: 'held' | 'memory' }) => {
  if (message.ask === 'memory') globalThis.gc?.();
  const state: ServerState = { longestMs, heapUsed: process.memoryUsage().heapUsed };
  longestMs = 0;
  if (message.ask === 'memory') last = performance.now();
  process.send?.({ state });
});

const server = await runServer(readConfig(process.env));
process.send?.({ ready: server.url });
process.on('disconnect', () => process.exit(0));
