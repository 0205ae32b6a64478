import type { MetricKind } from '../domain/metric';
import type { Series } from '../series/series';
import { HOUR_MS } from '../time/lengths';
import { zoneClock } from '../time/zoneClock';
import type { AlarmTest } from './alarmTest';
import { chartPoints } from './chartPoints';
import { individualsChart } from './nelson';

/** What a rule learnt from the past of its metric when it was put in force; it does not learn on. */
export type AlarmModel =
  /** Mean and standard deviation of the samples in each hour of the week, Monday 00:00 first; null = too few. */
  | {
      readonly kind: 'hours';
      readonly mean: readonly (number | null)[];
      readonly sd: readonly (number | null)[];
    }
  | { readonly kind: 'chart'; readonly centre: number; readonly sigma: number };

const HOURS_OF_WEEK = 168;
const FEWEST_OF_HOUR = 8;
/** Points a control chart is set up from; common practice, no source: 20 to 30 at least. */
const FEWEST_POINTS = 20;

/** Hour of the local week at an instant, 0 = Monday 00:00 to 167. */
export function hourOfWeek(t: number, zone: string): number {
  const local = t + zoneClock(zone).offset(t);
  // 1 January 1970 was a Thursday: three days after a Monday.
  return Math.floor(local / HOUR_MS + 72) % HOURS_OF_WEEK;
}

/** Does a test need to learn from the past first? */
export function needsModel(test: AlarmTest): boolean {
  return test.kind === 'baseline' || test.kind === 'runRules';
}

/** Learns from past samples what a test needs; null when it needs nothing, or there is too little. */
export function fitAlarmModel(
  test: AlarmTest,
  past: Series,
  reading: { readonly kind: MetricKind; readonly maxGapMs: number },
  zone: string,
): AlarmModel | null {
  if (test.kind === 'baseline') return hoursModel(past, zone);
  if (test.kind !== 'runRules') return null;
  const points = chartPoints(past, test.point, reading, zone);
  const chart = points.length < FEWEST_POINTS ? null : individualsChart(points);
  return chart && { kind: 'chart', ...chart };
}

function hoursModel(past: Series, zone: string): AlarmModel | null {
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
  const enough = (hour: number): boolean => n[hour] >= FEWEST_OF_HOUR && squares[hour] > 0;
  const hours = Array.from(n, (_, hour) => hour);
  if (!hours.some(enough)) return null;
  return {
    kind: 'hours',
    mean: hours.map((hour) => (enough(hour) ? mean[hour] : null)),
    sd: hours.map((hour) => (enough(hour) ? Math.sqrt(squares[hour] / (n[hour] - 1)) : null)),
  };
}
