/**
 * Rehearsal over a year of one-minute samples against the bare read of its packed days and a bare loop; and how much
 * of a core 5,000 rules over 2,000 metrics take at 5,000 samples a second, with how soon an alarm is seen.
 * Run: BENCH_DATABASE_URL=… node --import tsx bench/rules.ts [quick]
 * A scratch database is made and dropped. "quick" leaves the 5,000 rules out.
 */
import { DAY_MS, DEFAULT_RULE, type AlarmTest } from '@vivid-beacon/core';
import { unpackDay } from '@vivid-beacon/core/src/aggregation';
import { addAsset, addMetric, mergeIntoStore, putInForce, withTransaction } from '@vivid-beacon/server';
import { readContext } from '../server/src/readings/readContext';
import { readAsServer } from '@vivid-beacon/server/src/db/reader';
import { rehearseOtherLimits, rehearseRule } from '@vivid-beacon/server/src/alarms/rehearsal';
import { compare, report } from './lib/measure';
import { wave } from './lib/samples';
import { startBenchServer } from './lib/serverProcess';

const MINUTE = 60_000;
const DAYS = 365;
const METRICS = 2_000;
const RULES = Number(process.env.RULES ?? 5_000);
const SAMPLES_A_SECOND = 5_000;
const FEEDS = 4;
const SECONDS = 30;
const ALARMS = 200;

const quick = process.argv.includes('quick');
const server = await startBenchServer(process.env.BENCH_DATABASE_URL!);
const { pool, url } = server;
const today = Math.floor(Date.now() / DAY_MS) * DAY_MS;
const assetId = (await addAsset(pool, {
  parentId: null,
  name: 'Bench',
  kind: 'plant',
  zone: 'Europe/London',
}))!;
const makeMetric = async (n: number, intervalMs: number): Promise<string> =>
  (await addMetric(pool, {
    assetId,
    key: `bench.m${n}`,
    name: `m${n}`,
    unit: 'kW',
    kind: 'level',
    intervalMs,
    maxGapMs: 5 * MINUTE,
    rollover: null,
    decimals: 2,
    at: Date.now(),
  }))!;
const [person] = (await pool.query<{ id: string }>('select id from person limit 1')).rows;

const year = await makeMetric(0, MINUTE);
for (let from = 0; from < DAYS; from += 60) {
  const n = Math.min(60, DAYS - from) * 1440;
  const t = new Float64Array(n);
  const v = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    t[i] = today - (DAYS - from) * DAY_MS + i * MINUTE;
    v[i] = wave(from * 1440 + i, 1, 2);
  }
  await withTransaction(pool, (db) => mergeIntoStore(db, new Map([[year, { t, v }]]), 'bench', Date.now()));
}
const tests: readonly [string, AlarmTest][] = [
  ['a limit', { kind: 'limit', side: 'above', limit: 78, deadband: 1 }],
  [
    'a change',
    { kind: 'change', side: 'rise', limit: 10, inPercent: false, overMs: 30 * MINUTE, deadband: 1 },
  ],
];
for (const [name, test] of tests) {
  const draft = { ...DEFAULT_RULE, name: 'bench', metricId: year, test, onDelayMs: 5 * MINUTE };
  const bare = async (): Promise<number> => {
    const { rows } = await pool.query(
      `select day - date '1970-01-01' as day, n, times, vals, flags from sample_day where metric_id = $1 order by day`,
      [year],
    );
    let over = 0;
    for (const row of rows) {
      const { v } = unpackDay({ ...row, values: row.vals }, row.day * DAY_MS);
      for (let i = 0; i < v.length; i++) if (v[i] > 78) over++;
    }
    return over;
  };
  await compare(
    `Rehearsal over a year of minutes, ${name}`,
    () => rehearseRule(readContext(readAsServer(pool), today), draft, DAYS),
    bare,
    2,
  );
  // These have no limit: they follow the rehearsal itself.
  await compare(
    `45 other limits over the same, ${name} (told, no limit)`,
    () => rehearseOtherLimits(readContext(readAsServer(pool), today), draft, DAYS),
    bare,
    Infinity,
    3,
  );
}

if (!quick) {
  const ids: string[] = [];
  for (let n = 1; n <= METRICS; n++) ids.push(await makeMetric(n, 1000));
  const kinds: AlarmTest[] = [
    { kind: 'limit', side: 'above', limit: 1000, deadband: 1 },
    { kind: 'outside', low: -1000, high: 1000, deadband: 1 },
    { kind: 'silence', forMs: 10 * MINUTE },
  ];
  const inForceFrom = Date.now();
  for (let n = 0; n < RULES; n++) {
    await putInForce(
      pool,
      {
        ...DEFAULT_RULE,
        name: `rule ${n}`,
        metricId: ids[n % METRICS],
        test: kinds[Math.floor(n / METRICS) % 3],
      },
      person.id,
      inForceFrom,
    );
  }
  const push = async (samples: object[]): Promise<void> => {
    const answer = await fetch(`${url}/api/samples`, {
      method: 'POST',
      headers: { authorization: `Bearer ${server.token}`, 'content-type': 'application/json' },
      body: JSON.stringify({ samples }),
    });
    if (!answer.ok) throw new Error(`push answered ${answer.status}: ${await answer.text()}`);
  };
  const began = Date.now();
  const before = server.cpu();
  let sent = 0;
  let late = 0;
  /** One of several feeds, each of its own metrics: half a second's worth at a time. */
  const feed = async (n: number): Promise<void> => {
    const own = METRICS / FEEDS;
    const count = SAMPLES_A_SECOND / FEEDS / 2;
    let mine = 0;
    while (Date.now() - began < SECONDS * 1000) {
      const t = Date.now();
      const batch = Array.from({ length: count }, (_, i) => ({
        metric: `bench.m${1 + n * own + ((mine + i) % own)}`,
        t: t + Math.floor(i / own),
        v: wave(mine + i, i, 2),
      }));
      await push(batch);
      mine += count;
      sent += count;
      const due = began + (mine / count) * 500;
      if (Date.now() > due) late++;
      else await new Promise((done) => setTimeout(done, due - Date.now()));
    }
  };
  await Promise.all(Array.from({ length: FEEDS }, (_, n) => feed(n)));
  const seconds = (Date.now() - began) / 1000;
  report(
    `${RULES} rules over ${METRICS} metrics: cores the server uses`,
    (server.cpu() - before) / seconds,
    1,
    `${Math.round(sent / seconds)} samples a second, ${late} of ${(sent * 2 * FEEDS) / SAMPLES_A_SECOND} batches late`,
  );

  const stop = new AbortController();
  const live = await fetch(`${url}/api/live`, { headers: server.headers, signal: stop.signal });
  const reader = live.body!.getReader();
  let text = '';
  const heard = async (): Promise<void> => {
    while (!/"topic":"alarms","ids":\["/.test(text))
      text += new TextDecoder().decode((await reader.read()).value);
    text = '';
  };
  const waits: number[] = [];
  for (let n = 0; n < ALARMS; n++) {
    const at = performance.now();
    const hearing = heard();
    await push([{ metric: `bench.m${1 + n}`, t: Date.now() + 5, v: 5000 }]);
    await hearing;
    const answer = await fetch(`${url}/api/alarms`, { headers: server.headers });
    await answer.json();
    waits.push(performance.now() - at);
  }
  stop.abort();
  waits.sort((a, b) => a - b);
  report(
    `from sample to alarm read by a viewer, 99th percentile of ${ALARMS}, s`,
    waits[Math.ceil(ALARMS * 0.99) - 1] / 1000,
    1,
    `median ${waits[ALARMS / 2].toFixed(0)} ms`,
  );
}
await server.stop();
