/**
 * What rights by site and the trail cost: a value read by somebody who sees every plant against one who sees one of fifty, On
 * watch of both, and a change with the trail against one without it. The sides run by turns. Run:
 * BENCH_DATABASE_URL=… node --import tsx bench/rights.ts
 */
import { DAY_MS, HOUR_MS, MINUTE_MS, rightsEverywhere, type Rights } from '@vivid-beacon/core';
import { addPerson } from '@vivid-beacon/server';
import { hashPassword } from '../server/src/people/passwords';
import { makeVisitor, push, ruleDraft, indicatorDraft, type Visitor } from '../server/src/testing/testServer';
import { compare, median, report, timed } from './lib/measure';
import { wave } from './lib/samples';
import { startBenchServer } from './lib/serverProcess';

const PLANTS = 50;
const METRICS = 6;
const PASSWORD = 'seven grey geese over the harbour';
const RUNS = 61;

const { url, pool, token, stop } = await startBenchServer(process.env.BENCH_DATABASE_URL!);
try {
  const passwordHash = await hashPassword(PASSWORD);
  const join = async (name: string, rights: Rights): Promise<Visitor> => {
    const email = `${name}@bench.example`;
    await addPerson(pool, { email, name, rights, passwordHash, at: Date.now() });
    const visitor = makeVisitor(url);
    await visitor.signIn(email, PASSWORD);
    return visitor;
  };
  const analyst = await join('analyst', rightsEverywhere('analyst'));
  const make = async <T extends { id: string }>(path: string, body: object): Promise<T> => {
    const { status, body: made } = await analyst.call<T>('POST', path, body);
    if (status >= 300) throw new Error(`${path}: ${JSON.stringify(made)}`);
    return made;
  };
  const now = Date.now();
  const metricIds: string[] = [];
  const plantIds: string[] = [];
  for (let i = 0; i < PLANTS; i++) {
    const plant = await make('/api/assets', { name: `Plant ${i}`, kind: 'plant', zone: 'Europe/London' });
    plantIds.push(plant.id);
    for (let k = 0; k < METRICS; k++) {
      const metric = await make<{ id: string; key: string }>('/api/metrics', {
        assetId: plant.id,
        name: `Level ${k}`,
        unit: 'bar',
        kind: 'level',
        intervalMs: MINUTE_MS,
      });
      metricIds.push(metric.id);
      const samples = Array.from({ length: 1440 }, (_, n) => ({
        metric: metric.key,
        t: now - DAY_MS + n * MINUTE_MS,
        v: wave(n, i + k, 2),
      }));
      await push(url, token, samples);
    }
    await make('/api/alarm-rules', {
      ...ruleDraft(metricIds.at(-1)!),
      name: `Rule ${i}`,
      test: { kind: 'limit', side: 'above', limit: 10, deadband: 1 },
    });
    await make('/api/indicators', indicatorDraft(plant.id, metricIds.at(-1)!, { name: `Mean ${i}` }));
  }
  await pool.query('analyze');
  const all = await join('all', rightsEverywhere('viewer'));
  const one = await join('one', { everywhere: null, plants: { [plantIds[7]]: 'viewer' } });
  const metricId = metricIds[7 * METRICS];
  const value = (by: Visitor) => async (): Promise<void> => {
    for (let i = 0; i < 10; i++) {
      const { status } = await by.call('POST', '/api/readings/value', {
        measure: { metricId, summary: 'mean', per: null },
        window: { kind: 'rolling', count: 12, unit: 'hour' },
        band: null,
        hours: null,
      });
      if (status !== 200) throw new Error(`value: ${status}`);
    }
  };
  const watch = (by: Visitor) => async (): Promise<void> => {
    const { status } = await by.call('GET', '/api/on-watch');
    if (status !== 200) throw new Error(`on watch: ${status}`);
  };
  await value(all)();
  await value(one)();
  await compare('ten values, one plant of fifty over every plant', value(one), value(all), 1.05, RUNS);
  await compare('On watch, one plant of fifty over every plant', watch(one), watch(all), 1, 21);

  // Changes with the trail and without it, by turns: the triggers are switched off and on.
  const table = (how: 'enable' | 'disable') => pool.query(`alter table remark ${how} trigger trail`);
  const change = async (): Promise<void> => {
    for (let i = 0; i < 10; i++) {
      await analyst.call('POST', '/api/remarks', {
        assetId: plantIds[0],
        start: now - HOUR_MS,
        end: now,
        kind: 'note',
        text: 'Door open',
      });
    }
  };
  const [withTrail, without]: [number[], number[]] = [[], []];
  for (let i = 0; i < RUNS; i++) {
    withTrail.push((await timed(change)) / 10);
    await table('disable');
    without.push((await timed(change)) / 10);
    await table('enable');
  }
  report(
    'the trail, ms a change (time, not only processor)',
    median(withTrail) - median(without),
    1,
    `${median(withTrail).toFixed(2)} ms / ${median(without).toFixed(2)} ms`,
  );
} finally {
  await stop();
}
