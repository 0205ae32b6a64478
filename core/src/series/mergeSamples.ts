import type { QualifiedSeries, Series } from './series';

/** A sample whose value or quality was replaced by a later one for the same time. */
export interface Correction {
  readonly t: number;
  readonly before: number;
  readonly after: number;
  readonly qualityBefore: number;
  readonly qualityAfter: number;
}

export interface Merged {
  readonly series: QualifiedSeries;
  /** Samples at times that were not there before. */
  readonly added: QualifiedSeries;
  /** Samples already stored with the same value and quality. */
  readonly unchanged: number;
  readonly corrections: readonly Correction[];
}

type MaybeQualified = Series & { readonly q?: Uint8Array | null };

/**
 * Merges new samples into stored ones. The result does not depend on batching or repetition: for each time
 * the latest value holds.
 *
 * @param stored stored samples, increasing times.
 * @param incoming increasing times, see {@link sortSamples}.
 */
export function mergeSamples(stored: MaybeQualified, incoming: MaybeQualified): Merged {
  const n = stored.t.length;
  const m = incoming.t.length;
  if (n === 0 || m === 0 || stored.t[n - 1] < incoming.t[0]) return appended(stored, incoming);
  const out = makeColumns(n + m, Boolean(stored.q ?? incoming.q));
  const fresh = makeColumns(m, Boolean(incoming.q));
  const corrections: Correction[] = [];
  let unchanged = 0;
  let i = 0;
  let j = 0;
  let k = 0;
  let f = 0;
  while (i < n || j < m) {
    if (j >= m || (i < n && stored.t[i] < incoming.t[j])) {
      put(out, k++, stored, i++);
      continue;
    }
    if (i < n && stored.t[i] === incoming.t[j]) {
      const qualityBefore = stored.q?.[i] ?? 0;
      const qualityAfter = incoming.q?.[j] ?? 0;
      if (Object.is(stored.v[i], incoming.v[j]) && qualityBefore === qualityAfter) unchanged++;
      else {
        const [before, after] = [stored.v[i], incoming.v[j]];
        corrections.push({ t: stored.t[i], before, after, qualityBefore, qualityAfter });
      }
      i++;
    } else {
      put(fresh, f++, incoming, j);
    }
    put(out, k++, incoming, j++);
  }
  return { series: cut(out, k), added: cut(fresh, f), unchanged, corrections };
}

/** The effect of a merge, stored to undo it; `before` and `after` have the same times. */
export interface MergeChange {
  readonly added: QualifiedSeries;
  /** Samples it replaced, with the values they had. */
  readonly before: QualifiedSeries;
  /** The values it gave them. */
  readonly after: QualifiedSeries;
}

export interface Unmerged {
  readonly series: QualifiedSeries;
  readonly removed: number;
  /** Samples that something else has changed since; they are left alone. */
  readonly kept: number;
  readonly corrections: readonly Correction[];
  /** Times of the first and the last sample that changed, ms; Infinity and -Infinity without any. */
  readonly first: number;
  readonly last: number;
}

/**
 * Undoes a merge: added samples are removed, replaced ones get their former value, and samples changed since
 * stay.
 *
 * @param present the samples stored now.
 * `undoMerge(mergeSamples(stored, incoming).series, change).series` equals `stored`.
 */
export function undoMerge(present: QualifiedSeries, { added, before, after }: MergeChange): Unmerged {
  const n = present.t.length;
  const out = makeColumns(n, Boolean(present.q ?? before.q));
  const corrections: Correction[] = [];
  let [removed, k, a, b] = [0, 0, 0, 0];
  let [first, last] = [Infinity, -Infinity];
  for (let i = 0; i < n; i++) {
    const t = present.t[i];
    while (added.t[a] < t) a++;
    while (after.t[b] < t) b++;
    const takenBack = added.t[a] === t && isSame(present, i, added, a);
    const restored = !takenBack && after.t[b] === t && isSame(present, i, after, b);
    if (takenBack || restored) {
      first = Math.min(first, t);
      last = t;
    }
    if (takenBack) removed++;
    else if (restored) {
      corrections.push({
        t,
        before: present.v[i],
        after: before.v[b],
        qualityBefore: present.q?.[i] ?? 0,
        qualityAfter: before.q?.[b] ?? 0,
      });
      put(out, k++, before, b);
    } else put(out, k++, present, i);
  }
  const kept = added.t.length - removed + after.t.length - corrections.length;
  return { series: cut(out, k), removed, kept, corrections, first, last };
}

function isSame(a: MaybeQualified, i: number, b: MaybeQualified, k: number): boolean {
  return Object.is(a.v[i], b.v[k]) && (a.q?.[i] ?? 0) === (b.q?.[k] ?? 0);
}

/** The usual case of live data: all new samples are later than the stored ones. */
function appended(stored: MaybeQualified, incoming: MaybeQualified): Merged {
  const n = stored.t.length;
  const out = makeColumns(n + incoming.t.length, Boolean(stored.q ?? incoming.q));
  out.t.set(stored.t);
  out.t.set(incoming.t, n);
  out.v.set(stored.v);
  out.v.set(incoming.v, n);
  if (out.q && stored.q) out.q.set(stored.q);
  if (out.q && incoming.q) out.q.set(incoming.q, n);
  const added = { t: incoming.t, v: incoming.v, q: incoming.q ?? null };
  return { series: out, added, unchanged: 0, corrections: [] };
}

interface Columns {
  t: Float64Array;
  v: Float64Array;
  q: Uint8Array | null;
}

function makeColumns(length: number, withQuality: boolean): Columns {
  const q = withQuality ? new Uint8Array(length) : null;
  return { t: new Float64Array(length), v: new Float64Array(length), q };
}

function put(out: Columns, k: number, from: MaybeQualified, i: number): void {
  out.t[k] = from.t[i];
  out.v[k] = from.v[i];
  if (out.q) out.q[k] = from.q?.[i] ?? 0;
}

function cut({ t, v, q }: Columns, length: number): QualifiedSeries {
  const some = q?.subarray(0, length).some((each) => each !== 0);
  return { t: t.slice(0, length), v: v.slice(0, length), q: some ? q!.slice(0, length) : null };
}

/** Sorts samples by time; of several at one time the last one given stays. −0 becomes 0. */
export function sortSamples(
  t: ArrayLike<number>,
  v: ArrayLike<number>,
  q: ArrayLike<number> | null = null,
): QualifiedSeries {
  const n = t.length;
  let inOrder = true;
  for (let i = 1; i < n && inOrder; i++) inOrder = t[i] > t[i - 1];
  const quality = q && Array.prototype.some.call(q, (each: number) => each !== 0) ? q : null;
  if (inOrder) {
    const out = Float64Array.from(v);
    for (let i = 0; i < n; i++) out[i] += 0;
    return { t: Float64Array.from(t), v: out, q: quality && Uint8Array.from(quality) };
  }
  const order = new Uint32Array(n).map((_, i) => i).sort((a, b) => t[a] - t[b] || a - b);
  const out = makeColumns(n, quality !== null);
  let k = 0;
  for (const i of order) {
    if (k > 0 && out.t[k - 1] === t[i]) k--;
    out.t[k] = t[i];
    out.v[k] = v[i] + 0;
    if (out.q) out.q[k] = quality![i];
    k++;
  }
  return cut(out, k);
}
