/**
 * What a trend costs: thinning against the bare sum of the same array, and its points over HTTP, fetched and
 * decoded, against fetching as many bytes without decoding. Run: BENCH_DATABASE_URL=… node --import tsx
 * bench/trend.ts
 */
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { decodeTrend, seriesOf, encodeTrend, type TrendAnswer } from '@vivid-beacon/core';
import { m4 } from '@vivid-beacon/core/src/aggregation';
import { compare } from './lib/measure';
import { wave } from './lib/samples';

const SAMPLES = 1_000_000;
/** Uneven: every sample some seconds early or late. */
const t = Float64Array.from({ length: SAMPLES }, (_, i) => i * 60_000 + ((i * 7919) % 20_000));
const v = Float64Array.from({ length: SAMPLES }, (_, i) => wave(i, 5, 2));
const series = seriesOf(t, v);
const end = t[SAMPLES - 1] + 1;
let kept = 0;

console.log('— Thinning a million samples with uneven times');
for (const columns of [390, 1560]) {
  await compare(
    `M4 to ${columns} columns against the bare sum of the same array`,
    async () => void (kept += m4(series, 0, end, columns).t.length),
    async () => {
      let sum = 0;
      for (let i = 0; i < SAMPLES; i++) sum += v[i];
      kept += sum > 0 ? 1 : 0;
    },
    6,
    15,
  );
}

console.log('— Points to the browser');
const thin = m4(series, 0, end, 1560);
const answer: TrendAnswer = {
  window: { start: 0, end },
  zone: 'Europe/London',
  unit: 'kW',
  now: end,
  t: Array.from(thin.t),
  v: Array.from(thin.v),
  bucket: null,
  until: null,
  gaps: [],
  samples: SAMPLES,
};
const bytes = Buffer.from(encodeTrend(answer));
const server = createServer((_request, response) => response.end(bytes));
await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
const many = async (work: () => Promise<unknown>): Promise<void> => {
  for (let i = 0; i < 40; i++) await work();
};
await compare(
  `${answer.t.length} points fetched and read against fetching the same bytes alone`,
  () => many(async () => decodeTrend(await (await fetch(url)).arrayBuffer())),
  () => many(async () => (await fetch(url)).arrayBuffer()),
  1.5,
  9,
);
server.close();
server.closeAllConnections();
if (kept === 0) throw new Error('nothing was computed');
