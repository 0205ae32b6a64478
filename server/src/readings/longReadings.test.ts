import { DAY_MS, HOUR_MS } from '@vivid-beacon/core';
import { budgetAtAll, budgetHere, spend, ReadBudgetExceeded, withBudget } from '../db/readBudget';
import { withTransaction } from '../db/database';
import { mergeIntoStore } from '../samples/store';
import { indicatorDraft, onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';
import { readAsServer, SERVER_CALLER } from '../db/reader';
import { timeByLevelReading } from '../indicators/readings';
import type { MadeAnswer } from './answerReading';
import { answerQuery } from './query';
import { readContext } from './readContext';

const { test, analyst } = onTestServer('analyst');
const STEP = 2000;
const DAYS = 26;

/** A metric by the two seconds: 1.1 million values from 0 to 99. */
async function dense(): Promise<string> {
  const { metricId } = await serverWithMetric(analyst, { intervalMs: STEP, maxGapMs: 10_000 });
  const n = (DAYS * DAY_MS) / STEP;
  const t = Float64Array.from({ length: n }, (_, i) => TEST_NOW - (n - i) * STEP);
  const incoming = new Map([[metricId, { t, v: t.map((_, i) => i % 100), q: null }]]);
  await withTransaction(test.server.app.pool, (db) => mergeIntoStore(db, incoming, 'test', TEST_NOW));
  return metricId;
}

describe('a reading of very many samples', () => {
  it('is made in a thread of its own: the same answer, and nobody else waits', async () => {
    const metricId = await dense();
    const query = {
      measures: [{ select: { metricIds: [metricId] }, summary: 'p50', per: null, band: null }],
      window: { kind: 'rolling', count: DAYS, unit: 'day' },
      bucket: 'day',
      fold: null,
      within: [],
      groupBy: { kind: 'metric' },
      scope: { assetIds: null, attributes: [] },
      hours: null,
      compare: 'none',
      provenance: false,
    } as const;
    const db = readAsServer(test.server.app.pool);
    const here = readContext(withBudget(db, budgetHere()), TEST_NOW);
    await expect(answerQuery(here, query)).rejects.toThrow(ReadBudgetExceeded);
    let waited = 0;
    const asking = performance.now();
    let done = false;
    const asked = analyst.call<object>('POST', '/api/readings/query', query).finally(() => (done = true));
    while (!done) {
      const began = performance.now();
      await new Promise((resolve) => setTimeout(resolve, 1));
      waited = Math.max(waited, performance.now() - began);
    }
    const { status, body } = await asked;
    const took = performance.now() - asking;
    expect(status).toBe(200);
    // Without a budget it is read in this thread.
    expect(body).toEqual(JSON.parse(JSON.stringify(await answerQuery(readContext(db, TEST_NOW), query))));
    expect(waited).toBeLessThan(took / 2);
  }, 120_000);

  it('goes on in the thread however much there is, where nobody chooses the size of it', async () => {
    const { assetId, metricId, key, token } = await serverWithMetric(analyst);
    await analyst.call('POST', '/api/indicators', indicatorDraft(assetId, metricId));
    const t = TEST_NOW - 2 * HOUR_MS;
    await push(test.url, token, [{ metric: key, t, v: 90 }]);
    const { app } = test.server;
    const asked = { name: timeByLevelReading.name, ask: { days: 7 }, now: app.now(), asker: SERVER_CALLER };
    const made = await app.workers.readings.run<MadeAnswer>('read', asked);
    const here = await timeByLevelReading.read(readContext(readAsServer(app.pool), app.now()), { days: 7 });
    expect(JSON.parse(new TextDecoder().decode(made.bytes))).toEqual(JSON.parse(JSON.stringify(here)));
    expect(here.some((each) => each.metricId === metricId)).toBe(true);
  });

  it('is refused with words when it is more than one answer may read', () => {
    const db = withBudget(readAsServer(test.server.app.pool), budgetAtAll());
    spend(db, 19_000_000);
    expect(() => spend(db, 2_000_000)).toThrow(
      expect.objectContaining({
        status: 422,
        path: 'window',
        message: expect.stringContaining('20,000,000 samples'),
      }),
    );
    spend(db, 1_000_000);
    // Readers without a budget are not counted.
    expect(() => spend(test.server.app.pool, Infinity)).not.toThrow();
  });
});
