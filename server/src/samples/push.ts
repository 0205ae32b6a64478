import type { PushAnswer, PushRefusal, QualifiedSeries } from '@vivid-beacon/core';
import { sortSamples } from '@vivid-beacon/core/src/engine';
import { evaluateAlarms } from '../alarms/evaluate';
import { withTransaction } from '../db/database';
import type { AppContext } from '../http/appContext';
import { notify } from '../live/notify';
import { metricsByKey, metricsByPlainName, type MetricKeyRow } from '../metrics/sql';
import { noteClockAhead } from './latestSql';
import { readSample, type SentBatch } from './readPush';
import { countPushed } from './sql';
import { mergeIntoStore } from './store';

interface Columns {
  readonly t: number[];
  readonly v: number[];
  readonly q: number[];
}

/**
 * Takes one batch. Each sample is judged on its own; the good ones are stored in one transaction with the
 * rollups they change and the alarms they raise or return.
 */
export async function pushSamples(app: AppContext, tokenId: string, batch: SentBatch): Promise<PushAnswer> {
  const now = app.now();
  const metrics = await findMetrics(app, batch);
  const refused: PushRefusal[] = [...batch.refused];
  const ahead = new Map<string, number>();
  const taken = new Map<string, Columns>();
  let accepted = 0;
  let lastId = '';
  let columns: Columns = { t: [], v: [], q: [] };
  batch.each((sample, index) => {
    const read = readSample(sample, metrics, now);
    if ('reason' in read) {
      refused.push({ index, reason: read.reason });
      if (read.metricId) ahead.set(read.metricId, Math.max(read.aheadMs!, ahead.get(read.metricId) ?? 0));
      return;
    }
    if (read.metricId !== lastId) {
      lastId = read.metricId;
      columns = taken.get(lastId) ?? { t: [], v: [], q: [] };
      taken.set(lastId, columns);
    }
    accepted++;
    columns.t.push(read.t);
    columns.v.push(read.v);
    columns.q.push(read.q);
  });
  const incoming = new Map<string, QualifiedSeries>(
    [...taken].map(([id, { t, v, q }]) => [id, sortSamples(t, v, q)]),
  );
  const kept = [...incoming.values()].reduce((n, { t }) => n + t.length, 0);
  if (ahead.size > 0) {
    await noteClockAhead(
      app.pool,
      [...ahead].map(([metricId, aheadMs]) => ({ metricId, aheadMs })),
      now,
    );
  }
  refused.sort((a, b) => a.index - b.index);
  if (incoming.size === 0) return { added: 0, unchanged: 0, corrected: 0, refused };

  const results = await withTransaction(app.pool, async (db) => {
    const merged = await mergeIntoStore(db, incoming, `push token ${tokenId}`, now);
    const pushed = merged.flatMap(({ metricId, addedByDay }) =>
      [...addedByDay].map(([dayStart, n]) => ({ metricId, dayStart, samples: n })),
    );
    if (pushed.length > 0) await countPushed(db, tokenId, pushed);
    await evaluateAlarms(db, merged, now);
    const changed = merged.filter(({ changedFrom }) => changedFrom !== null).map(({ metricId }) => metricId);
    if (changed.length > 0) await notify(db, 'samples', changed);
    return merged;
  });
  const total = (pick: (result: (typeof results)[number]) => number): number =>
    results.reduce((n, result) => n + pick(result), 0);
  return {
    added: total((result) => result.added),
    unchanged: total((result) => result.unchanged) + accepted - kept,
    corrected: total((result) => result.corrected),
    refused,
  };
}

/** Metrics by what the sender calls them: by key, else by the key in plain letters. */
async function findMetrics(app: AppContext, batch: SentBatch): Promise<Map<string, MetricKeyRow>> {
  const found = await metricsByKey(app.pool, [...batch.keys]);
  const missing = [...batch.keys].filter((key) => !found.has(key));
  if (missing.length === 0 || batch.nameOf('a.b') === 'a.b') return found;
  const byName = await metricsByPlainName(app.pool, missing.map(batch.nameOf));
  for (const key of missing) {
    const metric = byName.get(batch.nameOf(key));
    if (metric) found.set(key, metric);
  }
  return found;
}
