import { m4 } from '../series/m4';
import { seriesOf } from '../series/series';
import type { Interval } from '../time/interval';
import { comparesValues } from './alarmTest';
import type { RehearsedMetric } from './rehearse';
import { signalOf } from './signal';

/** What a rule compares with its limit, over time, thinned for drawing; null where the line is broken. */
export interface SignalCourse {
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
}

/**
 * The course on which the limit of a rule lies: the values themselves where they are compared, otherwise what is
 * compared with the limit – the change, what the period has used so far, the distance from the usual.
 *
 * @param columns px of the drawing; at most four points each. Broken where nothing is known for longer than the
 * longest allowed gap.
 */
export function signalCourse(
  { condition, series }: RehearsedMetric,
  window: Interval,
  columns: number,
): SignalCourse {
  const v = comparesValues(condition.test) ? series.v : signalOf(condition, series, undefined, 0).x;
  const known = Array.from(series.t).flatMap((t, i) => (Number.isFinite(v[i]) ? [{ t, v: v[i] }] : []));
  const all = seriesOf(
    known.map((each) => each.t),
    known.map((each) => each.v),
  );
  const thin = m4(all, window.start, window.end, columns);
  const longest = Math.max(condition.maxGapMs, (window.end - window.start) / columns);
  const out = { t: [] as number[], v: [] as (number | null)[] };
  for (let i = 0; i < thin.t.length; i++) {
    if (i > 0 && thin.t[i] - thin.t[i - 1] > longest) {
      out.t.push(thin.t[i - 1]);
      out.v.push(null);
    }
    out.t.push(thin.t[i]);
    out.v.push(thin.v[i]);
  }
  return out;
}
