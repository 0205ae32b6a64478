import { BeaconError, namesByRule } from '@vivid-beacon/core';
import { closest } from '@vivid-beacon/core/src/requests';
import { makeAsset } from '../assets/changes';
import { readAsServer } from '../db/reader';
import { findChildAsset } from '../assets/sql';
import { withTransaction } from '../db/database';
import { notify } from '../live/notify';
import { makeMetric } from '../metrics/makeMetric';
import {
  metricsByKey,
  metricsByNames,
  metricsByPlainName,
  reachedMetrics,
  someKeys,
  type MetricKeyRow,
} from '../metrics/sql';
import type { UsedToken } from '../http/appContext';
import { mapSeries, mappedSeries, noteHeard } from './heardSql';
import type { PushContext } from './pushContext';
import { plainName, type ExposedSeries, type SentBatch } from './readPush';

/** Most metrics created in one push; further series wait for the next. */
const MAX_MADE = 200;
const KEYS_LOOKED_AT = 5000;
const SUGGESTIONS = 10;
const DEFAULT_INTERVAL_MS = 60_000;

/** Metrics by the keys in a batch, and the reasons for unknown keys. */
export interface FoundMetrics {
  readonly metrics: ReadonlyMap<string, MetricKeyRow>;
  /** Suggests the right key for an unknown one. */
  readonly missing: (key: string) => string;
  /** Series of exposition text that wait to be mapped. */
  readonly waiting: ReadonlyMap<string, ExposedSeries>;
}

/**
 * Finds the metric of every series of a batch. Exposition text is matched, in this order: by the label "metric"; by what
 * a person mapped the series to; without labels, by its name as a key in plain letters; by the rule of the token.
 */
export async function findMetrics(
  app: PushContext,
  token: UsedToken,
  batch: SentBatch,
): Promise<FoundMetrics> {
  const keys = [...batch.keys].filter((key) => !batch.series.has(key) || batch.series.get(key)!.key !== null);
  const metrics = new Map(await metricsByKey(app.pool, keys));
  const reasons = new Map<string, string>();
  const exposed = [...batch.series].filter(([, { key }]) => key === null);
  if (exposed.length > 0) await matchExposed(app, token, exposed, batch, metrics, reasons);
  const waiting = new Map(exposed.filter(([id]) => !metrics.has(id)));
  await dropUnreached(app, token, metrics, reasons);
  const suggest = await suggestions(
    app,
    token,
    [...batch.keys].filter((key) => !metrics.has(key) && !reasons.has(key) && !labelled(waiting.get(key))),
  );
  return {
    metrics,
    waiting,
    missing: (key) => {
      const known = reasons.get(key);
      if (known) return known;
      const series = waiting.get(key);
      if (labelled(series)) {
        return `${clip(key)} is heard but not mapped to a metric yet: map it under Data, Push tokens, or send the label metric with the key of one`;
      }
      const meant = suggest.get(key);
      return `there is no metric "${clip(key)}" that takes samples${meant ? `; did you mean "${meant}"?` : '. Its key stands under the name of each metric'}`;
    },
  };
}

/** Takes away what a token of one plant, or of a few metrics, may not write, and says so. */
async function dropUnreached(
  app: PushContext,
  token: UsedToken,
  metrics: Map<string, MetricKeyRow>,
  reasons: Map<string, string>,
): Promise<void> {
  if (token.plantId === null && token.metricIds === null) return;
  const ids = [...metrics.values()].map(({ id }) => id);
  const reached = await reachedMetrics(app.pool, token, ids);
  for (const [key, { id }] of metrics) {
    if (reached.has(id)) continue;
    metrics.delete(key);
    reasons.set(key, `this token may not write "${clip(key)}"`);
  }
}

function labelled(series: ExposedSeries | undefined): boolean {
  return series !== undefined && Object.keys(series.labels).length > 0;
}

async function matchExposed(
  app: PushContext,
  token: UsedToken,
  exposed: readonly (readonly [string, ExposedSeries])[],
  batch: SentBatch,
  metrics: Map<string, MetricKeyRow>,
  reasons: Map<string, string>,
): Promise<void> {
  const mapped = await mappedSeries(
    app.pool,
    token.id,
    exposed.map(([, { series }]) => series),
  );
  for (const [id, { series }] of exposed) {
    const metric = mapped.get(series);
    if (metric) metrics.set(id, metric);
  }
  const names = new Set([...batch.series.values()].map(({ name }) => name));
  const bare = exposed.filter(([id, series]) => !metrics.has(id) && !labelled(series));
  if (bare.length > 0) {
    // A counter may end in _total, but not where its family sends a sample without that ending too.
    const stem = (name: string): string | null =>
      name.endsWith('_total') && !names.has(name.slice(0, -6)) ? name.slice(0, -6) : null;
    const wanted = bare.flatMap(([, { name }]) => [name, stem(name) ?? name]).map(plainName);
    const byName = await metricsByPlainName(app.pool, [...new Set(wanted)]);
    for (const [id, { name }] of bare) {
      const found = byName.get(plainName(name)) ?? byName.get(plainName(stem(name) ?? name)) ?? [];
      if (found.length === 1) metrics.set(id, found[0]);
      else if (found.length > 1) {
        reasons.set(
          id,
          `"${clip(name)}" may be any of ${found.map(({ key }) => key).join(', ')}: send the label metric with the key`,
        );
      }
    }
  }
  const open = exposed.filter(([id]) => !metrics.has(id) && !reasons.has(id));
  if (open.length > 0) await matchByRule(app, token, open, metrics);
}

async function matchByRule(
  app: PushContext,
  { id: tokenId, rule }: UsedToken,
  open: readonly (readonly [string, ExposedSeries])[],
  metrics: Map<string, MetricKeyRow>,
): Promise<void> {
  const named = open.flatMap(([id, series]) => {
    const names = namesByRule(series, rule);
    return names ? [{ id, series, ...names }] : [];
  });
  if (named.length === 0) return;
  const nameOf = ({ asset, metric }: { asset: string; metric: string }): string =>
    `${asset}\u001f${metric}`.toLowerCase();
  const found = new Map<string, MetricKeyRow[]>();
  for (const { asset, metric, ...row } of await metricsByNames(app.pool, named, rule.parentId)) {
    const key = nameOf({ asset, metric });
    const known = found.get(key) ?? [];
    if (!known.some(({ id }) => id === row.id)) found.set(key, [...known, row]);
  }
  const unmade: typeof named = [];
  for (const each of named) {
    const rows = found.get(nameOf(each)) ?? [];
    // Several assets of one name: only a person can say which is meant.
    if (rows.length === 1) metrics.set(each.id, rows[0]);
    else if (rows.length === 0) unmade.push(each);
  }
  if (rule.unknown !== 'make' || rule.parentId === null || unmade.length === 0) return;
  const parentId = rule.parentId;
  const now = app.now();
  await withTransaction(app.pool, async (db) => {
    await db.query('select pg_advisory_xact_lock(hashtext($1))', [`push rule ${tokenId}`]);
    for (const { id, series, asset, metric } of unmade.slice(0, MAX_MADE)) {
      // Another push may have made it while this one waited.
      const [there] = await metricsByNames(db, [{ asset, metric }], parentId);
      if (there) {
        metrics.set(id, there);
        continue;
      }
      const assetId =
        (await findChildAsset(db, parentId, asset)) ??
        (
          await makeAsset(readAsServer(db), {
            name: asset.slice(0, 200),
            parentId,
            kind: 'machine',
            zone: null,
            attributes: {},
          })
        ).id;
      const counter = /_(total|count|sum|bucket)$/.test(series.name);
      const kind = counter ? 'register' : 'level';
      const metricId = await makeMetric(readAsServer(db), {
        assetId,
        name: metric.slice(0, 200),
        unit: '',
        kind,
        intervalMs: DEFAULT_INTERVAL_MS,
        maxGapMs: DEFAULT_INTERVAL_MS * 3,
        rollover: null,
        decimals: 1,
        origin: 'samples',
        at: now,
      });
      await noteHeard(db, tokenId, [{ ...series, value: NaN, count: 0 }], now);
      await mapSeries(db, tokenId, series.series, metricId);
      metrics.set(id, {
        id: metricId,
        key: series.series,
        unit: '',
        retentionDays: null,
        kind,
        intervalMs: DEFAULT_INTERVAL_MS,
        stamped: 'start',
      });
    }
    await notify(db, 'metrics', []);
  }).catch((error: unknown) => {
    // A name that is taken or a parent that is gone: the series wait, and say so.
    if (!(error instanceof BeaconError)) throw error;
    for (const { id } of unmade) metrics.delete(id);
  });
}

async function suggestions(
  app: PushContext,
  token: UsedToken,
  keys: readonly string[],
): Promise<ReadonlyMap<string, string>> {
  if (keys.length === 0) return new Map();
  const known = await someKeys(app.pool, token, KEYS_LOOKED_AT);
  return new Map(
    keys.slice(0, SUGGESTIONS).flatMap((key) => {
      const meant = closest(key, known);
      return meant === null ? [] : [[key, meant] as const];
    }),
  );
}

function clip(text: string): string {
  return text.length > 200 ? `${text.slice(0, 200)}…` : text;
}
