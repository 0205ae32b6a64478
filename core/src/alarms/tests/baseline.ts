import { formatNumber } from '../../format/format';
import type { Series } from '../../series/series';
import { HOUR_MS } from '../../time/lengths';
import { zoneClock } from '../../time/zoneClock';
import { deadband, moreThanNothing, nearer, side } from './fields';
import { plainSignal, testKind, type SignalContext } from './testKind';

/** Mean and standard deviation of the samples in each hour of the week, Monday 00:00 first; null = too few. */
interface Model {
  readonly kind: 'hours';
  readonly mean: readonly (number | null)[];
  readonly sd: readonly (number | null)[];
}

const SIDES = { above: 'above', below: 'below', either: 'from' } as const;

/** More than `limit` standard deviations from the usual value at this hour of the week. */
export const baselineTest = testKind('baseline', {
  side: side('above', 'below', 'either'),
  limit: moreThanNothing,
  deadband,
})({
  label: 'the usual',
  ending: 'unusual',
  metrics: ['level', 'amount'],
  hasLimit: true,
  begin: () => ({ kind: 'baseline', side: 'above', limit: 4, deadband: 1 }),
  words: (test) => `more than ${formatNumber(test.limit, 1)} σ ${SIDES[test.side]} the usual for the hour`,
  back: (test) => `at ${formatNumber(test.limit - test.deadband, 1)} σ from the usual or less`,
  limitUnit: () => ({ unit: 'σ', decimals: 1 }),
  milder: (test) => ({ ...test, limit: nearer(test.limit, false) }),
  threshold: (test) => ({ limit: test.limit, deadband: test.deadband }),
  signal: (test, context, series) =>
    plainSignal(deviations(test.side, context as SignalContext<Model>, series), series),
  learn: (_, past, __, zone) => hoursModel(past, zone),
});

const HOURS_OF_WEEK = 168;
const MIN_OF_HOUR = 8;

/** Hour of the local week at an instant, 0 = Monday 00:00 to 167. */
export function hourOfWeek(t: number, zone: string): number {
  const local = t + zoneClock(zone).offset(t);
  // 1 January 1970 was a Thursday: three days after a Monday.
  return Math.floor(local / HOUR_MS + 72) % HOURS_OF_WEEK;
}

function deviations(
  away: keyof typeof SIDES,
  { model, site }: SignalContext<Model>,
  { t, v }: Series,
): Float64Array {
  const x = new Float64Array(t.length).fill(NaN);
  if (!model) return x;
  for (let i = 0; i < t.length; i++) {
    const hour = hourOfWeek(t[i], site.zone);
    const mean = model.mean[hour];
    const sd = model.sd[hour];
    if (mean === null || sd === null) continue;
    const z = (v[i] - mean) / sd;
    x[i] = away === 'either' ? Math.abs(z) : away === 'below' ? -z : z;
  }
  return x;
}

function hoursModel(past: Series, zone: string): Model | null {
  const n = new Float64Array(HOURS_OF_WEEK);
  const mean = new Float64Array(HOURS_OF_WEEK);
  const squares = new Float64Array(HOURS_OF_WEEK);
  for (let i = 0; i < past.t.length; i++) {
    const v = past.v[i];
    if (Number.isNaN(v)) continue;
    const hour = hourOfWeek(past.t[i], zone);
    // B. P. Welford, Technometrics 4 (1962).
    const d = v - mean[hour];
    mean[hour] += d / ++n[hour];
    squares[hour] += d * (v - mean[hour]);
  }
  const enough = (hour: number): boolean => n[hour] >= MIN_OF_HOUR && squares[hour] > 0;
  const hours = Array.from(n, (_, hour) => hour);
  if (!hours.some(enough)) return null;
  return {
    kind: 'hours',
    mean: hours.map((hour) => (enough(hour) ? mean[hour] : null)),
    sd: hours.map((hour) => (enough(hour) ? Math.sqrt(squares[hour] / (n[hour] - 1)) : null)),
  };
}
