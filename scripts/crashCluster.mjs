#!/usr/bin/env node
/**
 * A separate durable cluster for the test that kills PostgreSQL: "start" prints { url, pid } as its last line
 * and leaves it running, "stop" shuts it down.
 */
import { mkdirSync } from 'node:fs';
import { postmasterPid, startCluster, stopClusterNamed } from './lib/cluster.mjs';
import { DATA } from './lib/paths.mjs';
import { runMain } from './lib/say.mjs';

const NAME = 'postgres-crash';

await runMain(async () => {
  mkdirSync(DATA, { recursive: true });
  if (process.argv[2] === 'stop') {
    stopClusterNamed(NAME);
    return;
  }
  const cluster = await startCluster(NAME);
  process.stdout.write(`${JSON.stringify({ url: cluster.url, pid: postmasterPid(NAME) })}\n`);
});
