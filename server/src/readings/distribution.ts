import {
  periodOfWindow,
  addsUp,
  DAY_MS,
  isCovered,
  periodOfDistribution,
  resolveWindow,
  type Bucket,
  type Distribution,
  type DistributionAsk,
  type Interval,
} from '@vivid-beacon/core';
import { bucketSpans } from '@vivid-beacon/core/src/aggregation';
import { loadMeasure, readMeasure } from './measure';
import type { ReadContext } from './readContext';

const LOOK_BACK_DAYS = 90;
/** Of a total so many periods at least, if there are. */
const PERIODS = 12;

/** The last 90 days before now (of a total twelve periods, if that is longer), or the window itself where that is longer or lies in the past; never what is still to come. Where that holds no value, as long before the newest sample. */
export async function describeDistribution(
  context: ReadContext,
  { measure, window }: DistributionAsk,
): Promise<Distribution> {
  const { now } = context;
  const loaded = await loadMeasure(context, measure);
  const { start, end } = resolveWindow(window, now, loaded.zone, loaded.calendar);
  const length = end - start;
  const past = end < now - LOOK_BACK_DAYS * DAY_MS;
  const future = start >= now;
  // A total says nothing of a window much longer or shorter: its values are those of periods as long.
  const whole = !past && addsUp(measure);
  const back = whole ? Math.max(LOOK_BACK_DAYS * DAY_MS, length * PERIODS) : LOOK_BACK_DAYS * DAY_MS;
  const interval =
    !future && (past || length > back) ? { start, end: Math.min(end, now) } : { start: now - back, end: now };
  const usual = past ? 'day' : periodOfDistribution(length);
  const bucket: Bucket = whole ? periodOfWindow(window, now, loaded.zone) : usual;
  const valuesIn = async (looked: Interval): Promise<number[]> => {
    const buckets = bucketSpans(looked, bucket, null, loaded.zone, loaded.calendar);
    return (await readMeasure(context, loaded, buckets)).values
      .filter((each, i) => isCovered(each) && !(whole && buckets.end[i] > now))
      .flatMap(({ value }) => (value === null ? [] : [value]))
      .sort((a, b) => a - b);
  };
  const values = await valuesIn(interval);
  const last = values.length > 0 ? null : loaded.numerator.lastT;
  if (last === null || last >= interval.start) return { values, bucket, interval };
  // Nothing there: the newest there is, however long ago.
  const earlier = { start: last - back, end: last + 1 };
  return { values: await valuesIn(earlier), bucket, interval: earlier };
}
