/**
 * Aggregates of the samples in each of `size` buckets: enough for every summary except percentiles, small
 * enough to store, and mergeable into longer buckets.
 */
export interface Aggregates {
  readonly size: number;
  /** Number of usable samples in the bucket. */
  readonly n: Float64Array;
  readonly sum: Float64Array;
  /** NaN while n = 0; so are `max`, `first` and `last`. */
  readonly min: Float64Array;
  readonly max: Float64Array;
  readonly first: Float64Array;
  readonly last: Float64Array;
  /** Sum of squared differences from the mean of the bucket. */
  readonly m2: Float64Array;
  /** ms covered by usable data. */
  readonly heldMs: Float64Array;
  /** Level: value × ms it held, summed. Amount that counts by share: the shares. */
  readonly area: Float64Array;
  /** Register: its increase, and the ms over which that is known. */
  readonly increase: Float64Array;
  readonly spanMs: Float64Array;
  /** State: ms in each state code from 0 to 999; all others together under {@link OTHER_STATES}. */
  readonly stateMs: Map<number, Float64Array>;
}

/** Empty buckets. Their columns share one buffer. */
export function emptyAggregates(size: number): Aggregates {
  const memory = new ArrayBuffer(11 * size * 8);
  const zeros = (column: number): Float64Array => new Float64Array(memory, column * size * 8, size);
  const unknown = (column: number): Float64Array => zeros(column).fill(NaN);
  return {
    size,
    n: zeros(0),
    sum: zeros(1),
    min: unknown(2),
    max: unknown(3),
    first: unknown(4),
    last: unknown(5),
    m2: zeros(6),
    heldMs: zeros(7),
    area: zeros(8),
    increase: zeros(9),
    spanMs: zeros(10),
    stateMs: new Map(),
  };
}

/** Codes beyond 999 share a column: a state metric fed with temperatures would otherwise fill the memory. */
const MAX_STATES = 1000;
export const OTHER_STATES = -1;

/** The column of a state code, created on first use. */
export function stateColumn(aggregates: Aggregates, value: number): Float64Array {
  const code = Number.isInteger(value) && value >= 0 && value < MAX_STATES ? value : OTHER_STATES;
  let column = aggregates.stateMs.get(code);
  if (!column) {
    column = new Float64Array(aggregates.size);
    aggregates.stateMs.set(code, column);
  }
  return column;
}

/**
 * Merges bucket `i` of `from` into bucket `k` of `into`, which has to be earlier (for first and last).
 * Squared differences are merged after Chan, Golub and LeVeque (The American Statistician 37, 1983).
 */
export function mergeAggregates(into: Aggregates, k: number, from: Aggregates, i: number): void {
  const na = into.n[k];
  const nb = from.n[i];
  if (nb > 0) {
    if (na > 0) {
      const apart = from.sum[i] / nb - into.sum[k] / na;
      into.m2[k] += from.m2[i] + (apart * apart * na * nb) / (na + nb);
      if (from.min[i] < into.min[k]) into.min[k] = from.min[i];
      if (from.max[i] > into.max[k]) into.max[k] = from.max[i];
    } else {
      into.m2[k] = from.m2[i];
      into.min[k] = from.min[i];
      into.max[k] = from.max[i];
      into.first[k] = from.first[i];
    }
    into.last[k] = from.last[i];
    into.n[k] = na + nb;
    into.sum[k] += from.sum[i];
  }
  into.heldMs[k] += from.heldMs[i];
  into.area[k] += from.area[i];
  into.increase[k] += from.increase[i];
  into.spanMs[k] += from.spanMs[i];
  if (from.stateMs.size === 0) return;
  for (const [code, column] of from.stateMs) if (column[i] > 0) stateColumn(into, code)[k] += column[i];
}
