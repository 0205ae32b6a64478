import { readFileSync } from 'node:fs';
import { runServer } from '../../runServer';
import { readConfig } from '../../config';

/**
 * The server in its own process that reports how long its thread was blocked: a timer due every 20 ms is late
 * by as much. Time taken by other processes does not count: the delay is at most the processor time this
 * thread used.
 */
const EVERY_MS = 20;
let longestMs = 0;
let last = performance.now();
let cpu = threadMs();
setInterval(() => {
  const now = performance.now();
  const used = threadMs();
  longestMs = Math.max(longestMs, Math.min(now - last - EVERY_MS, used - cpu));
  last = now;
  cpu = used;
}, EVERY_MS).unref();

/** Processor time of the answering thread so far, ms. Linux tells it of the first thread (proc(5), schedstat), others of all. */
function threadMs(): number {
  try {
    return Number(readFileSync('/proc/self/schedstat', 'utf8').split(' ')[0]) / 1e6;
  } catch {
    const { user, system } = process.cpuUsage();
    return (user + system) / 1000;
  }
}

export interface ServerState {
  /** Longest time the thread was blocked since the last call, ms. */
  readonly longestMs: number;
  /** Memory in use after garbage collection, bytes. */
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
