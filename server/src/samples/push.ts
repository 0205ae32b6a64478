import { BeaconError, EARLIEST_TIME, sortSamples, type PushAnswer, type Series } from '@vivid-beacon/core';
import { evaluateAlarms } from '../alarms/evaluate';
import { withTransaction } from '../db/database';
import type { AppContext } from '../http/appContext';
import { notify } from '../live/notify';
import { metricsByKey, type MetricKeyRow } from '../metrics/sql';
import { countPushed } from './sql';
import { mergeIntoStore } from './store';

export const MOST_SAMPLES = 10_000;
/** How far a sender's clock may run ahead of ours. */
const AHEAD_MS = 5 * 60_000;

/**
 * Takes one batch. Each sample is judged on its own; the good ones are stored in one transaction with the
 * alarms they raise or return.
 */
export async function pushSamples(app: AppContext, tokenId: string, samples: unknown): Promise<PushAnswer> {
  if (!Array.isArray(samples)) {
    throw new BeaconError('BAD_INPUT', 'samples must be a list of { metric, t, v }.', 'samples');
  }
  if (samples.length > MOST_SAMPLES) {
    throw new BeaconError(
      'TOO_LARGE',
      `A batch may hold at most ${MOST_SAMPLES} samples, got ${samples.length}.`,
      'samples',
    );
  }
  const now = app.now();
  const keys = new Set(samples.map((each) => (each as { metric?: unknown } | null)?.metric).filter(isText));
  const metrics = await metricsByKey(app.pool, [...keys]);
  const refused: { index: number; reason: string }[] = [];
  const taken = new Map<string, { t: number[]; v: number[] }>();
  samples.forEach((each: unknown, index) => {
    const read = readSample(each, metrics, now);
    if ('reason' in read) {
      refused.push({ index, reason: read.reason });
      return;
    }
    const columns = taken.get(read.metricId) ?? { t: [], v: [] };
    taken.set(read.metricId, columns);
    columns.t.push(read.t);
    columns.v.push(read.v);
  });
  const incoming = new Map<string, Series>([...taken].map(([id, { t, v }]) => [id, sortSamples(t, v)]));
  const repeatedInBatch =
    samples.length - refused.length - [...incoming.values()].reduce((n, { t }) => n + t.length, 0);
  if (incoming.size === 0) return { added: 0, unchanged: 0, corrected: 0, refused };

  const results = await withTransaction(app.pool, async (db) => {
    const merged = await mergeIntoStore(db, incoming, `push token ${tokenId}`, now);
    const pushed = merged.flatMap(({ metricId, addedByDay }) =>
      [...addedByDay].map(([dayStart, n]) => ({ metricId, dayStart, samples: n })),
    );
    if (pushed.length > 0) await countPushed(db, tokenId, pushed);
    await evaluateAlarms(db, merged, incoming);
    const changed = merged.filter(({ changedFrom }) => changedFrom !== null).map(({ metricId }) => metricId);
    if (changed.length > 0) await notify(db, 'samples', changed);
    return merged;
  });
  const total = (pick: (result: (typeof results)[number]) => number): number =>
    results.reduce((n, result) => n + pick(result), 0);
  return {
    added: total((result) => result.added),
    unchanged: total((result) => result.unchanged) + repeatedInBatch,
    corrected: total((result) => result.corrected),
    refused,
  };
}

type ReadSample =
  { readonly metricId: string; readonly t: number; readonly v: number } | { readonly reason: string };

function readSample(each: unknown, metrics: ReadonlyMap<string, MetricKeyRow>, now: number): ReadSample {
  if (typeof each !== 'object' || each === null) return { reason: 'must be an object { metric, t, v }' };
  const { metric: key, t: time, v: value, unit } = each as Record<string, unknown>;
  if (!isText(key)) return { reason: 'metric must be the key of a metric' };
  const metric = metrics.get(key);
  if (!metric) return { reason: `there is no metric "${clip(key)}"` };
  const t = typeof time === 'number' ? time : isText(time) ? Date.parse(withOffset(time)) : NaN;
  if (!Number.isFinite(t)) {
    return {
      reason: `t must be ms since 1970 or a time with offset such as 2026-11-19T06:40:00Z, got ${show(time)}`,
    };
  }
  if (!Number.isInteger(t)) return { reason: `t must be whole ms, got ${t}` };
  if (t > now + AHEAD_MS)
    return { reason: `t lies ${Math.round((t - now) / 1000)} s in the future; check the sender's clock` };
  if (t < EARLIEST_TIME) return { reason: `t lies before 1900, got ${show(time)}` };
  if (typeof value !== 'number' || !Number.isFinite(value))
    return { reason: `v must be a finite number, got ${show(value)}` };
  if (unit !== undefined && unit !== metric.unit) {
    return { reason: `unit must be "${metric.unit}" as set for this metric, got ${show(unit)}` };
  }
  return { metricId: metric.id, t, v: value };
}

/** A time without an offset has no meaning in a push: it is refused, not guessed. */
function withOffset(text: string): string {
  return /(Z|[+-]\d{2}:\d{2})$/.test(text) ? text : 'no offset';
}

function isText(value: unknown): value is string {
  return typeof value === 'string';
}

function clip(text: string): string {
  return text.length > 80 ? `${text.slice(0, 79)}…` : text;
}

function show(value: unknown): string {
  return clip(JSON.stringify(value) ?? 'nothing');
}
