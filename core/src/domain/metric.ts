import { lowerFirst } from '../text/lowerFirst';
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
  /** Of an amount: counts by the share of its interval in a window, instead of in full where it begins. */
  readonly isSpread?: boolean;
}

/** What the times of amounts stand for where they come in: the start or the end of their interval. */
export const STAMPS = ['start', 'end'] as const;
export type Stamped = (typeof STAMPS)[number];
export const STAMP_WORDS: Readonly<Record<Stamped, string>> = {
  start: 'the start of their interval',
  end: 'the end of their interval',
};

/** Where an amount counts that a window cuts: in full where it begins, or by its share. */
export const CUTS = ['start', 'share'] as const;
export const CUT_WORDS: Readonly<Record<(typeof CUTS)[number], string>> = {
  start: 'in full where it begins',
  share: 'by the share of its interval',
};

/**
 * How much earlier samples are stored than they are stamped, ms: amounts are kept by the start of their interval.
 * @example stampShift({ kind: 'amount', intervalMs: 900_000 }, 'end') // => 900_000
 */
export const stampShift = (
  { kind, intervalMs }: { readonly kind: MetricKind; readonly intervalMs: number },
  stamped: Stamped,
): number => (kind === 'amount' && stamped === 'end' ? intervalMs : 0);

/** State code that counts as running in `share` and `duration`. */
export const RUNNING = 1;

/** The unit a summary comes in, given the metric's own unit. */
export function unitOfSummary(summary: Summary, unit: string): string {
  if (summary === 'share') return '%';
  if (summary === 'duration') return 'h';
  if (summary === 'count') return '';
  return unit;
}

/**
 * Unit of a measure as it is written: "kWh/kg" for a ratio without a unit of its own.
 * @param perAttribute the attribute it is divided by.
 */
export function unitOfMeasure(
  numerator: { readonly summary: Summary; readonly unit: string },
  denominator: { readonly summary: Summary; readonly unit: string } | null,
  ratioUnit: string | null,
  perAttribute: string | null = null,
): string {
  const top = unitOfSummary(numerator.summary, numerator.unit);
  if (perAttribute !== null) return unitPerAttribute(top, perAttribute);
  if (denominator === null) return top;
  if (ratioUnit !== null) return ratioUnit;
  const bottom = unitOfSummary(denominator.summary, denominator.unit);
  return bottom === '' ? top : `${top || '1'}/${bottom}`;
}

/**
 * "kWh" per "Floor area (m²)" → "kWh/m²"; per "Beds", which names no unit → "kWh per Beds".
 * @example unitPerAttribute('kWh', 'Floor area (m²)') // => 'kWh/m²'
 */
export function unitPerAttribute(unit: string, name: string): string {
  const own = /\(([^()]+)\)\s*$/.exec(name)?.[1];
  if (!own) return unit ? `${unit} per ${name}` : `per ${name}`;
  return `${unit || '1'}/${own.includes('/') ? `(${own})` : own}`;
}

/** An attribute as a divisor, without its unit: "Floor area (m²)" → "floor area". */
export const perName = (attribute: string): string => lowerFirst(attribute.replace(/\s*\([^()]*\)\s*$/, ''));

/** Summaries whose parts add up to the whole. */
export const ADDS_UP: ReadonlySet<Summary> = new Set(['sum', 'count', 'increase', 'duration']);
