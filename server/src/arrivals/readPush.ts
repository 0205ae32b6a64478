import { MAX_SAMPLES } from '@vivid-beacon/core/src/api/samples';
import { BeaconError, DAY_MS, isStorable, QUALITY, stampShift, type PushRefusal } from '@vivid-beacon/core';
import { dayOf } from '@vivid-beacon/core/src/aggregation';
import {
  EARLIEST_TIME,
  exposedName,
  readOpenMetrics,
  readPlainExposition,
  type Exposition,
} from '@vivid-beacon/core/src/intakeFiles';
import type { MetricKeyRow } from '../metrics/sql';

/** How far a sender's clock may run ahead of ours. */
export const AHEAD_MS = 5 * 60_000;

/** A sample as sent, before any check. */
export interface SentSample {
  readonly metric: unknown;
  readonly t: unknown;
  readonly v: unknown;
  readonly q?: unknown;
  readonly unit?: unknown;
}

/** Samples as sent, one after another; `at` names where each stood. */
export interface SentBatch {
  readonly size: number;
  readonly each: (take: (sample: SentSample, index: number) => void) => void;
  readonly keys: ReadonlySet<string>;
  /** Refused while the body was read. */
  readonly refused: readonly PushRefusal[];
  /** Series of exposition text by the key their samples bear; empty for formats that name metrics by key. */
  readonly series: ReadonlyMap<string, ExposedSeries>;
}

/** A series of exposition text: its name and labels tell it apart. */
export interface ExposedSeries {
  /** name{label="value",…} with the labels in order. */
  readonly series: string;
  readonly name: string;
  readonly labels: Readonly<Record<string, string>>;
  /** The key of a metric, from the label "metric". */
  readonly key: string | null;
}

const NO_SERIES: ReadonlyMap<string, ExposedSeries> = new Map();

function tooMany(got: number): BeaconError {
  return new BeaconError(
    'TOO_LARGE',
    `A batch may hold at most ${MAX_SAMPLES} samples, got ${got}.`,
    'samples',
  );
}

/** { samples: [{ metric, t, v }] } or, in columns, { series: [{ metric, t: [], v: [] }] }. */
export function readJsonPush(body: unknown): SentBatch {
  const { samples, series } = (body ?? {}) as { samples?: unknown; series?: unknown };
  if (Array.isArray(series)) return readSeriesPush(series);
  if (!Array.isArray(samples)) {
    throw new BeaconError(
      'BAD_INPUT',
      'Send { samples: [{ metric, t, v }] } or { series: [{ metric, t: [], v: [] }] }.',
      'samples',
    );
  }
  if (samples.length > MAX_SAMPLES) throw tooMany(samples.length);
  const keys = new Set<string>();
  for (const each of samples) {
    const key = (each as { metric?: unknown } | null)?.metric;
    if (typeof key === 'string' && isStorable(key)) keys.add(key);
  }
  return {
    size: samples.length,
    keys,
    refused: [],
    series: NO_SERIES,
    each: (take) => samples.forEach((sample, i) => take(sample as SentSample, i)),
  };
}

interface SentSeries {
  readonly metric: unknown;
  readonly t: readonly unknown[];
  readonly v: readonly unknown[];
  readonly q?: readonly unknown[];
  readonly unit?: unknown;
}

function readSeriesPush(series: readonly unknown[]): SentBatch {
  let size = 0;
  const keys = new Set<string>();
  series.forEach((given, i) => {
    const each = given as SentSeries | null;
    if (!each || !Array.isArray(each.t) || !Array.isArray(each.v) || each.t.length !== each.v.length) {
      throw new BeaconError(
        'BAD_INPUT',
        `series[${i}] needs lists t and v of the same length.`,
        `series[${i}]`,
      );
    }
    size += each.t.length;
    if (typeof each.metric === 'string' && isStorable(each.metric)) keys.add(each.metric);
  });
  if (size > MAX_SAMPLES) throw tooMany(size);
  return {
    size,
    keys,
    refused: [],
    series: NO_SERIES,
    each: (take) => {
      let index = 0;
      for (const { metric, t, v, q, unit } of series as readonly SentSeries[]) {
        for (let i = 0; i < t.length; i++) take({ metric, t: t[i], v: v[i], q: q?.[i], unit }, index++);
      }
    },
  };
}

/** One JSON object a line: { "metric": …, "t": …, "v": … }. */
export function readNdjsonPush(text: string): SentBatch {
  const samples: { sample: SentSample; line: number }[] = [];
  const refused: PushRefusal[] = [];
  text.split('\n').forEach((written, i) => {
    if (written.trim() === '') return;
    try {
      samples.push({ sample: JSON.parse(written) as SentSample, line: i });
    } catch {
      refused.push({ index: i, reason: `line ${i + 1} is not valid JSON` });
    }
  });
  if (samples.length + refused.length > MAX_SAMPLES) throw tooMany(samples.length + refused.length);
  const named = samples.flatMap(({ sample }) =>
    typeof sample?.metric === 'string' && isStorable(sample.metric) ? [sample.metric] : [],
  );
  return {
    size: samples.length,
    keys: new Set(named),
    refused,
    series: NO_SERIES,
    each: (take) => samples.forEach(({ sample, line }) => take(sample, line)),
  };
}

/** OpenMetrics text; see {@link readExposition}. @throws {BeaconError} BAD_INPUT without its end mark. */
export function readOpenMetricsPush(text: string, now: number): SentBatch {
  return readExposition(readOpenMetrics(text), now);
}

/** Plain exposition text, which has no end mark; see {@link readExposition}. */
export function readPlainPush(text: string, now: number): SentBatch {
  return readExposition(readPlainExposition(text), now);
}

/**
 * Samples of exposition text. Name and labels together are the series; the label `metric` gives the key of its metric.
 * A line without a time gets the time of arrival.
 */
function readExposition({ samples, refused }: Exposition, now: number): SentBatch {
  if (samples.length + refused.length > MAX_SAMPLES) throw tooMany(samples.length + refused.length);
  const series = new Map<string, ExposedSeries>();
  const odd = samples.filter(({ labels }) => !labels.every(([, value]) => isStorable(value)));
  const unstorable = odd.map(({ line }) => ({
    index: line - 1,
    reason: `line ${line}: a label holds the character U+0000 or half a surrogate pair`,
  }));
  const readable = odd.length === 0 ? samples : samples.filter((sample) => !odd.includes(sample));
  const named = readable.map((sample) => {
    const own = [...sample.labels].sort(([a], [b]) => (a < b ? -1 : 1));
    const rest = own.filter(([label]) => label !== 'metric');
    const key = own.find(([label]) => label === 'metric')?.[1] ?? null;
    const each: ExposedSeries = {
      series: exposedName({ name: sample.name, labels: rest }),
      name: sample.name,
      labels: Object.fromEntries(rest),
      key,
    };
    const id = key ?? each.series;
    if (!series.has(id)) series.set(id, each);
    return { sample, id };
  });
  return {
    size: readable.length,
    keys: new Set(series.keys()),
    refused: [
      ...refused.map(({ line, reason }) => ({ index: line - 1, reason: `line ${line}: ${reason}` })),
      ...unstorable,
    ],
    series,
    each: (take) =>
      named.forEach(({ sample, id }) =>
        take({ metric: id, t: sample.t ?? now, v: sample.value, unit: undefined }, sample.line - 1),
      ),
  };
}

/** A key as it is written where only letters, digits and _ are allowed. */
export function plainName(key: string): string {
  return key.replace(/[^a-zA-Z0-9]+/g, '_').toLowerCase();
}

export type ReadSample =
  | { readonly metricId: string; readonly t: number; readonly v: number; readonly q: number }
  | {
      readonly reason: string;
      readonly metricId?: string;
      readonly aheadMs?: number;
      /** The key that has no metric. */
      readonly unknown?: string;
    };

/** Checks one sample on its own. */
export function readSample(
  each: SentSample,
  metrics: ReadonlyMap<string, MetricKeyRow>,
  now: number,
  /** Why a key has no metric. */
  missing: (key: string) => string = (key) => `there is no metric "${clip(key)}" that takes samples`,
): ReadSample {
  if (typeof each !== 'object' || each === null) return { reason: 'must be an object { metric, t, v }' };
  const { metric: key, t: time, v: value, q, unit } = each;
  if (typeof key !== 'string') return { reason: 'metric must be the key of a metric' };
  const metric = metrics.get(key);
  if (!metric) return { reason: missing(key), unknown: key };
  const t = typeof time === 'number' ? time : typeof time === 'string' ? timeOf(time) : NaN;
  if (!Number.isFinite(t)) {
    return {
      reason: `t must be ms since 1970 or a time with offset such as 2026-11-19T06:40:00Z, got ${show(time)}`,
    };
  }
  if (!Number.isInteger(t)) return { reason: `t must be whole ms, got ${t}` };
  if (t > now + AHEAD_MS) {
    const seconds = Math.round((t - now) / 1000);
    return {
      reason: `t lies ${seconds} s in the future; check the sender's clock`,
      metricId: metric.id,
      aheadMs: t - now,
    };
  }
  if (t < EARLIEST_TIME) return { reason: `t lies before 1500, got ${show(time)}` };
  if (t < keptSince(metric.retentionDays, now)) {
    return {
      reason: `t is older than the ${metric.retentionDays} days this metric keeps, got ${show(time)}`,
    };
  }
  if (unit !== undefined && unit !== metric.unit) {
    return { reason: `unit must be "${metric.unit}" as set for this metric, got ${show(unit)}` };
  }
  const quality = qualityOf(q);
  // Amounts are kept by the start of their interval.
  const from = t - stampShift(metric, metric.stamped);
  if (quality === null) return { reason: `q must be good, uncertain or bad (or 0, 1, 2), got ${show(q)}` };
  if (value === null && quality === QUALITY.bad) return { metricId: metric.id, t: from, v: NaN, q: quality };
  if (typeof value !== 'number' || !Number.isFinite(value)) {
    return { reason: `v must be a finite number, got ${show(value)}` };
  }
  return { metricId: metric.id, t: from, v: value, q: quality };
}

/** Samples before this are not taken: their day has been thrown away, only its rollup is left. ms. */
export function keptSince(retentionDays: number | null, now: number): number {
  return retentionDays === null ? -Infinity : dayOf(now) - retentionDays * DAY_MS;
}

function qualityOf(q: unknown): number | null {
  if (q === undefined || q === null || q === 'good' || q === 0) return QUALITY.good;
  if (q === 'uncertain' || q === 1) return QUALITY.uncertain;
  if (q === 'bad' || q === 2) return QUALITY.bad;
  return null;
}

/** A time without an offset has no meaning in a push: it is refused, not guessed. */
function timeOf(text: string): number {
  return /(Z|[+-]\d{2}:\d{2})$/.test(text) ? Date.parse(text) : NaN;
}

function show(value: unknown): string {
  return clip(JSON.stringify(value) ?? String(value));
}

function clip(text: string): string {
  return text.length > 80 ? `${text.slice(0, 80)}…` : text;
}
