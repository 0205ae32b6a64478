/**
 * 500 viewers on server-sent events, one message a second: what share of a core the server uses, and whether any is lost.
 * Run: BENCH_DATABASE_URL=… node --import tsx bench/live.ts
 */
import { report } from './lib/measure';
import { startBenchServer } from './lib/serverProcess';

const VIEWERS = 500;
const MESSAGES = 60;
const server = await startBenchServer(process.env.BENCH_DATABASE_URL!);
const stop = new AbortController();
const heard = new Array<number>(VIEWERS).fill(0);
await Promise.all(
  heard.map(async (_, i) => {
    const answer = await fetch(`${server.url}/api/live`, { headers: server.headers, signal: stop.signal });
    const reader = answer.body!.getReader();
    const read = async (): Promise<void> => {
      for (;;) {
        const { value, done } = await reader.read();
        if (done) return;
        heard[i] += new TextDecoder().decode(value).split('event:change').length - 1;
      }
    };
    read().catch(() => undefined);
  }),
);
await new Promise((done) => setTimeout(done, 3000));
const idle = { cpu: server.cpu(), at: Date.now() };
await new Promise((done) => setTimeout(done, 10_000));
const quiet = (server.cpu() - idle.cpu) / ((Date.now() - idle.at) / 1000);
const began = { cpu: server.cpu(), at: Date.now() };
for (let n = 0; n < MESSAGES; n++) {
  await server.pool.query("select pg_notify('vivid_beacon', $1)", [
    JSON.stringify({ topic: 'boards', ids: [String(n)] }),
  ]);
  await new Promise((done) => setTimeout(done, began.at + (n + 1) * 1000 - Date.now()));
}
const used = (server.cpu() - began.cpu) / ((Date.now() - began.at) / 1000);
await new Promise((done) => setTimeout(done, 2000));
report(
  `${VIEWERS} viewers, one message a second: share of a core`,
  used,
  0.03,
  `${quiet.toFixed(3)} with viewers and no messages`,
);
report('messages lost', VIEWERS * MESSAGES - heard.reduce((a, b) => a + b, 0), 0);
stop.abort();
await server.stop();
