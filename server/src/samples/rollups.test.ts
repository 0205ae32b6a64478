import fc from 'fast-check';
import { DAY_MS, QUALITY, type MetricKind, type QualifiedSeries } from '@vivid-beacon/core';
import { QUARTER_MS, unpackRollup, sortSamples } from '@vivid-beacon/core/src/aggregation';
import { withTransaction } from '../db/database';
import { onTestServer, TEST_NOW, serverWithMetric } from '../testing/testServer';
import { rebuildRollups } from './rebuild';
import { readRollups } from './rollupSql';
import { mergeIntoStore } from './store';

const MINUTE = 60_000;
const START = Date.UTC(2026, 2, 27);
const { test, analyst } = onTestServer('analyst');

interface Sent {
  readonly minute: number;
  readonly v: number;
  readonly q: number;
}

const GAP_MINUTES = 200;
const MINUTES = (4 * DAY_MS) / MINUTE;

/** A few days of samples in any order, some for the same minute, some bad. */
const anySent = fc.array(
  fc.record({
    minute: fc.integer({ min: 0, max: MINUTES - 1 }),
    v: fc.integer({ min: 0, max: 5000 }).map((n) => n / 100),
    q: fc.constantFrom(QUALITY.good, QUALITY.good, QUALITY.good, QUALITY.uncertain, QUALITY.bad),
  }),
  { minLength: 1, maxLength: 60 },
);

interface Naive {
  n: number;
  sum: number;
  min: number;
  max: number;
  held: number;
  area: number;
  increase: number;
}

/** Everything computed minute by minute over the sorted set, without any of the product's code. */
function naive(kind: MetricKind, sent: readonly Sent[]): Map<number, Naive> {
  const last = new Map<number, Sent>();
  for (const each of sent) last.set(each.minute, each);
  const usable = [...last.values()].filter(({ q }) => q < 2).sort((a, b) => a.minute - b.minute);
  const out = new Map<number, Naive>();
  const at = (minute: number): Naive => {
    const quarter = Math.floor(minute / 15);
    const found = out.get(quarter) ?? {
      n: 0,
      sum: 0,
      min: Infinity,
      max: -Infinity,
      held: 0,
      area: 0,
      increase: 0,
    };
    out.set(quarter, found);
    return found;
  };
  usable.forEach(({ minute, v }, i) => {
    const cell = at(minute);
    cell.n++;
    cell.sum += v;
    cell.min = Math.min(cell.min, v);
    cell.max = Math.max(cell.max, v);
    const next = usable[i + 1]?.minute ?? Infinity;
    const hold = kind === 'amount' ? 1 : GAP_MINUTES;
    for (let m = minute; m < Math.min(next, minute + hold); m++) {
      at(m).held += MINUTE;
      if (kind === 'level') at(m).area += v * MINUTE;
    }
    if (kind === 'register' && usable[i + 1]) {
      const after = usable[i + 1].v;
      const step = after >= v ? after - v : after;
      for (let m = minute; m < next; m++) at(m).increase += step / (next - minute);
    }
  });
  return out;
}

async function storedQuarters(metricId: string): Promise<Map<number, Naive>> {
  const out = new Map<number, Naive>();
  const days = await readRollups(
    test.server.app.pool,
    [metricId],
    START - 10 * DAY_MS,
    START + 20 * DAY_MS,
    'quarters',
  );
  for (const { dayStart, body } of days) {
    const aggregates = unpackRollup(body);
    for (let i = 0; i < aggregates.size; i++) {
      if (aggregates.n[i] === 0 && aggregates.heldMs[i] === 0 && aggregates.spanMs[i] === 0) continue;
      out.set((dayStart - START) / QUARTER_MS + i, {
        n: aggregates.n[i],
        sum: aggregates.sum[i],
        min: Number.isNaN(aggregates.min[i]) ? Infinity : aggregates.min[i],
        max: Number.isNaN(aggregates.max[i]) ? -Infinity : aggregates.max[i],
        held: aggregates.heldMs[i],
        area: aggregates.area[i],
        increase: aggregates.increase[i],
      });
    }
  }
  return out;
}

function seriesOfSent(sent: readonly Sent[]): QualifiedSeries {
  return sortSamples(
    sent.map(({ minute }) => START + minute * MINUTE),
    sent.map(({ v }) => v),
    sent.map(({ q }) => q),
  );
}

async function send(metricId: string, batch: readonly Sent[]): Promise<void> {
  await withTransaction(test.server.app.pool, (db) =>
    mergeIntoStore(db, new Map([[metricId, seriesOfSent(batch)]]), 'test', TEST_NOW),
  );
}

async function bodies(metricId: string): Promise<string[]> {
  const { rows } = await test.server.app.pool.query<{ line: string }>(
    `select day || ' ' || encode(body, 'hex') || ' ' || encode(hours, 'hex') as line from rollup_day where metric_id = $1 order by day`,
    [metricId],
  );
  return rows.map(({ line }) => line);
}

describe.each(['level', 'amount', 'register', 'state'] as const)('rollups of a %s', (kind) => {
  it('end the same for any order, repetition and batching, and as a naive calculation says', async () => {
    await fc.assert(
      fc.asyncProperty(
        anySent,
        fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1, maxLength: 12 }),
        async (sent, sizes) => {
          const shape = { kind, intervalMs: MINUTE, maxGapMs: GAP_MINUTES * MINUTE };
          const { metricId } = await serverWithMetric(analyst, shape);
          let from = 0;
          for (const size of [...sizes, sent.length]) {
            const batch = sent.slice(from, from + size);
            if (batch.length === 0) break;
            await send(metricId, batch);
            if (size % 3 === 0) await send(metricId, batch);
            from += size;
          }
          const stored = await storedQuarters(metricId);
          const expected = naive(kind, sent);
          expect([...stored.keys()].sort((a, b) => a - b)).toEqual(
            [...expected.keys()].sort((a, b) => a - b),
          );
          for (const [quarter, want] of expected) {
            const got = stored.get(quarter)!;
            expect([got.n, got.min, got.max, got.held]).toEqual([want.n, want.min, want.max, want.held]);
            expect(got.sum).toBeCloseTo(want.sum, 9);
            expect(got.area).toBeCloseTo(want.area, 3);
            expect(got.increase).toBeCloseTo(want.increase, 6);
          }
          // Arriving once and in order gives exactly the same bytes.
          const { metricId: twin } = await serverWithMetric(analyst, shape);
          await send(twin, sent);
          expect(await bodies(twin)).toEqual(await bodies(metricId));
        },
      ),
      { numRuns: 25 },
    );
  }, 120_000);
});

describe('rollups', () => {
  it('are made again when what they rest on changes', async () => {
    const { metricId } = await serverWithMetric(analyst, { intervalMs: MINUTE, maxGapMs: 10 * MINUTE });
    await send(metricId, [
      { minute: 0, v: 10, q: 0 },
      { minute: 60, v: 99, q: 0 },
    ]);
    const pool = test.server.app.pool;
    await pool.query('update metric set max_gap_ms = $2, plausible_high = 50 where id = $1', [
      metricId,
      30 * MINUTE,
    ]);
    await withTransaction(pool, (db) => rebuildRollups(db, metricId));
    const stored = await storedQuarters(metricId);
    expect([...stored.keys()]).toEqual([0, 1]);
    const { rows } = await pool.query('select quality from metric_samples($1, $2, $3)', [
      metricId,
      new Date(START),
      new Date(START + DAY_MS),
    ]);
    expect(rows).toEqual([{ quality: 0 }, { quality: QUALITY.implausible }]);
  });
});

describe('metric_samples in plain SQL', () => {
  it('gives every sample back to the last bit, with its quality', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.uniqueArray(fc.integer({ min: 0, max: 3 * DAY_MS }), { minLength: 1, maxLength: 40 }),
        fc.boolean(),
        fc.infiniteStream(fc.double({ noNaN: true, noDefaultInfinity: true })),
        async (times, round, stream) => {
          const { metricId } = await serverWithMetric(analyst);
          const samples = times.map((ms, i) => {
            const v = stream.next().value!;
            return { t: START + ms, v: round ? Math.round((v % 1e6) * 100) / 100 + 0 || 0 : v + 0, q: i % 3 };
          });
          const series = sortSamples(
            samples.map(({ t }) => t),
            samples.map(({ v }) => v),
            samples.map(({ q }) => q),
          );
          await withTransaction(test.server.app.pool, (db) =>
            mergeIntoStore(db, new Map([[metricId, series]]), 'test', TEST_NOW),
          );
          const { rows } = await test.server.app.pool.query<{ t: Date; v: number; quality: number }>(
            `select t, v, quality from metric_samples($1, '2026-01-01', '2027-01-01')`,
            [metricId],
          );
          expect(rows.map(({ t, v, quality }) => [t.getTime(), v, quality])).toEqual(
            Array.from(series.t, (t, i) => [t, series.v[i], series.q?.[i] ?? 0]),
          );
        },
      ),
      { numRuns: 20 },
    );
  }, 60_000);
});
