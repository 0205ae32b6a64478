import {
  addsUp,
  coveredValue,
  fixedTarget,
  targetOfWindow,
  yearBefore,
  type IndicatorDefinition,
  type Interval,
  type PeriodTarget,
} from '@vivid-beacon/core';
import { bucketSpans, type BucketSpans } from '@vivid-beacon/core/src/aggregation';
import { loadMeasure, readMeasure, type LoadedMeasure } from '../readings/measure';
import type { ReadContext } from '../readings/readContext';
import { readBaseline } from './baseline';

/** The target that holds in each period; null where there is none. */
export async function targetsOfBuckets(
  context: ReadContext,
  definition: IndicatorDefinition,
  typed: readonly PeriodTarget[],
  loaded: LoadedMeasure,
  buckets: BucketSpans,
): Promise<(number | null)[]> {
  const { target, measure, hours } = definition;
  const periods = buckets.start.map((start, i) => ({ start, end: buckets.end[i] }));
  switch (target.kind) {
    case 'none':
      return periods.map(() => null);
    case 'fixed':
      return periods.map((period) =>
        fixedTarget(
          target.value,
          target.prorate ?? 'none',
          period,
          upTo(period, context.now),
          addsUp(measure),
          loaded,
        ),
      );
    case 'periods':
      return periods.map((period) =>
        targetOfWindow(
          typed,
          target.period,
          upTo(period, context.now),
          addsUp(measure),
          target.prorate,
          loaded,
        ),
      );
    case 'measure': {
      const other = await loadMeasure(context, target.measure);
      const { values } = await readMeasure(context, other, buckets);
      return values.map((each) => {
        const value = coveredValue(each);
        return value === null ? null : value * target.factor;
      });
    }
    case 'lastYear': {
      const found: (number | null)[] = [];
      for (const period of periods) {
        const before = yearBefore(upTo(period, context.now), loaded.zone);
        const one = bucketSpans(before, null, hours, loaded.zone, loaded.calendar);
        const value = coveredValue((await readMeasure(context, loaded, one)).values[0]);
        found.push(value === null ? null : moreBy(value, target.percent));
      }
      return found;
    }
    case 'baseline': {
      const found: (number | null)[] = [];
      for (const period of periods) {
        const usual = await readBaseline(context, loaded, hours, upTo(period, context.now), target.weeks);
        found.push(usual === null ? null : moreBy(usual, target.percent));
      }
      return found;
    }
  }
}

/** A value and so many percent of its size more. */
function moreBy(value: number, percent: number): number {
  return value + (Math.abs(value) * percent) / 100;
}

/** What of a period has passed; one that has not begun counts whole, so that targets ahead can be shown. */
export function upTo({ start, end }: Interval, now: number): Interval {
  return { start, end: now > start ? Math.min(end, now) : end };
}
