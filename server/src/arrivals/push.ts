import type { PushAnswer, PushCollision, PushRefusal, QualifiedSeries } from '@vivid-beacon/core';
import { sortSamples } from '@vivid-beacon/core/src/aggregation';
import { withTransaction } from '../db/database';
import type { UsedToken } from '../http/appContext';
import { findMetrics } from './findMetrics';
import { noteHeard, type HeardNow } from './heardSql';
import { noteClockAhead } from '../samples/latestSql';
import { combine, type PushColumns } from './collideInPush';
import type { PushContext } from './pushContext';
import { readSample, type SentBatch } from './readPush';
import { storeSamples } from './storeSamples';

/**
 * Takes one batch. Each sample is checked on its own; valid ones are stored in one transaction, with their
 * rollups and alarms.
 */
export async function pushSamples(app: PushContext, token: UsedToken, batch: SentBatch): Promise<PushAnswer> {
  const now = app.now();
  const { metrics, missing, waiting } = await findMetrics(app, token, batch);
  const refused: PushRefusal[] = [...batch.refused];
  const ahead = new Map<string, number>();
  const heard = new Map<string, HeardNow>();
  const taken = new Map<string, PushColumns>();
  let accepted = 0;
  let lastId = '';
  let columns: PushColumns = { t: [], v: [], q: [], index: [] };
  batch.each((sample, index) => {
    const read = readSample(sample, metrics, now, missing);
    if ('reason' in read) {
      refused.push({ index, reason: read.reason });
      if (read.metricId) ahead.set(read.metricId, Math.max(read.aheadMs!, ahead.get(read.metricId) ?? 0));
      const series = read.unknown === undefined ? undefined : waiting.get(read.unknown);
      if (series) {
        const count = (heard.get(series.series)?.count ?? 0) + 1;
        heard.set(series.series, { ...series, value: Number(sample.v), count });
      }
      return;
    }
    if (read.metricId !== lastId) {
      lastId = read.metricId;
      columns = taken.get(lastId) ?? { t: [], v: [], q: [], index: [] };
      taken.set(lastId, columns);
    }
    accepted++;
    columns.t.push(read.t);
    columns.v.push(read.v);
    columns.q.push(read.q);
    columns.index.push(index);
  });
  const met: PushCollision[] = [];
  const incoming = new Map<string, QualifiedSeries>();
  for (const [id, came] of taken) {
    const combined = combine(came, token.rule.collisions);
    const { t, v, q } = combined.columns;
    incoming.set(id, sortSamples(t, v, q));
    for (const { index, first, before, value, t: at } of combined.met) {
      const reason = `${value} meets ${before} of the same series at ${new Date(at).toISOString()}; this token takes the ${token.rule.collisions}`;
      met.push({ index, first, reason });
    }
  }
  if (heard.size > 0) await noteHeard(app.pool, token.id, [...heard.values()], now);
  const kept = [...incoming.values()].reduce((n, { t }) => n + t.length, 0);
  if (ahead.size > 0) {
    await noteClockAhead(
      app.pool,
      [...ahead].map(([metricId, aheadMs]) => ({ metricId, aheadMs })),
      now,
    );
  }
  refused.sort((a, b) => a.index - b.index);
  if (incoming.size === 0) return { added: 0, unchanged: 0, corrected: 0, refused, met };

  const source = { name: `push token ${token.id}`, tokenId: token.id };
  const results = await withTransaction(app.pool, (db) => storeSamples(db, incoming, source, now));
  const total = (pick: (result: (typeof results)[number]) => number): number =>
    results.reduce((n, result) => n + pick(result), 0);
  return {
    added: total((result) => result.added),
    unchanged: total((result) => result.unchanged) + accepted - kept,
    corrected: total((result) => result.corrected),
    refused,
    met,
  };
}
