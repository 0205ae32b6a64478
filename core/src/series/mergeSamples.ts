import type { Series } from './series';

/** A sample whose value was replaced by a later one for the same time. */
export interface Correction {
  readonly t: number;
  readonly before: number;
  readonly after: number;
}

export interface Merged {
  readonly series: Series;
  /** Samples at times that were not there before. */
  readonly added: number;
  /** Samples that were already there with the same value. */
  readonly unchanged: number;
  readonly corrections: readonly Correction[];
}

/**
 * Lays new samples over stored ones. The result does not depend on how samples were batched or how
 * often they were repeated: for each time the value given last holds.
 *
 * @param stored   what is there, increasing times.
 * @param incoming increasing times, see {@link sortSamples}.
 */
export function mergeSamples(stored: Series, incoming: Series): Merged {
  const n = stored.t.length;
  const m = incoming.t.length;
  const t = new Float64Array(n + m);
  const v = new Float64Array(n + m);
  const corrections: Correction[] = [];
  let unchanged = 0;
  let added = 0;
  let i = 0;
  let j = 0;
  let k = 0;
  while (i < n || j < m) {
    if (j >= m || (i < n && stored.t[i] < incoming.t[j])) {
      t[k] = stored.t[i];
      v[k++] = stored.v[i++];
      continue;
    }
    if (i < n && stored.t[i] === incoming.t[j]) {
      if (Object.is(stored.v[i], incoming.v[j])) unchanged++;
      else corrections.push({ t: stored.t[i], before: stored.v[i], after: incoming.v[j] });
      i++;
    } else {
      added++;
    }
    t[k] = incoming.t[j];
    v[k++] = incoming.v[j++];
  }
  return { series: { t: t.slice(0, k), v: v.slice(0, k) }, added, unchanged, corrections };
}

/** Puts samples in order of time; of several at one time the last given stays. −0 becomes 0. */
export function sortSamples(t: ArrayLike<number>, v: ArrayLike<number>): Series {
  const order = Array.from({ length: t.length }, (_, i) => i);
  order.sort((a, b) => t[a] - t[b] || a - b);
  const outT = new Float64Array(t.length);
  const outV = new Float64Array(t.length);
  let k = 0;
  for (const i of order) {
    if (k > 0 && outT[k - 1] === t[i]) k--;
    outT[k] = t[i];
    outV[k++] = v[i] + 0;
  }
  return { t: outT.slice(0, k), v: outV.slice(0, k) };
}
