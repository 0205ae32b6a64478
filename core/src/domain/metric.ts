/** The four kinds of metric; the kind decides what a summary means. */
export const METRIC_KINDS = ['level', 'amount', 'register', 'state'] as const;
export type MetricKind = (typeof METRIC_KINDS)[number];

/** Where the values of a metric come from: samples, an expression over other metrics, or values by period. */
export const METRIC_ORIGINS = ['samples', 'derived', 'reference'] as const;
export type MetricOrigin = (typeof METRIC_ORIGINS)[number];

/** The ways to reduce the samples of a window to one number. */
export const SUMMARIES = [
  'mean',
  'sum',
  'increase',
  'min',
  'max',
  'last',
  'first',
  'count',
  'p5',
  'p50',
  'p95',
  'sd',
  'share',
  'duration',
] as const;
export type Summary = (typeof SUMMARIES)[number];

/** Summaries defined for a kind, the most common first. */
export const SUMMARIES_OF_KIND: Readonly<Record<MetricKind, readonly Summary[]>> = {
  level: ['mean', 'min', 'max', 'last', 'first', 'p5', 'p50', 'p95', 'sd', 'count'],
  amount: ['sum', 'mean', 'min', 'max', 'last', 'first', 'p5', 'p50', 'p95', 'sd', 'count'],
  register: ['increase', 'last', 'first', 'count'],
  state: ['share', 'duration', 'last', 'count'],
};

/** What a summary is called on a screen. */
export const SUMMARY_WORDS: Readonly<Record<Summary, string>> = {
  mean: 'mean',
  sum: 'sum',
  increase: 'increase',
  min: 'lowest',
  max: 'highest',
  last: 'latest',
  first: 'first',
  count: 'number of samples',
  p5: '5th percentile',
  p50: 'median',
  p95: '95th percentile',
  sd: 'standard deviation',
  share: 'share of time running',
  duration: 'time running',
};

/** How to interpret the samples of a metric. Durations in ms. */
export interface MetricReading {
  readonly kind: MetricKind;
  /** Logging interval: how far apart samples are meant to be. An amount covers [t, t + intervalMs). */
  readonly intervalMs: number;
  /** Longest allowed gap: how long a sample is trusted when none follows. */
  readonly maxGapMs: number;
  /** For a register: the value at which the counter starts again at 0; null if it never does. */
  readonly rollover: number | null;
}

/** State code that counts as running in `share` and `duration`. */
export const RUNNING = 1;

/** The unit a summary comes in, given the metric's own unit. */
export function unitOfSummary(summary: Summary, unit: string): string {
  if (summary === 'share') return '%';
  if (summary === 'duration') return 'h';
  if (summary === 'count') return '';
  return unit;
}

/** Unit of a measure as it is written: "kWh/kg" for a ratio without a unit of its own. */
export function unitOfMeasure(
  numerator: { readonly summary: Summary; readonly unit: string },
  denominator: { readonly summary: Summary; readonly unit: string } | null,
  ratioUnit: string | null,
): string {
  const top = unitOfSummary(numerator.summary, numerator.unit);
  if (denominator === null) return top;
  if (ratioUnit !== null) return ratioUnit;
  const bottom = unitOfSummary(denominator.summary, denominator.unit);
  return bottom === '' ? top : `${top || '1'}/${bottom}`;
}

/** Summaries whose parts add up to the whole. */
export const ADDS_UP: ReadonlySet<Summary> = new Set(['sum', 'count', 'increase', 'duration']);
