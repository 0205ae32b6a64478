import { baselineOf, weeksBefore, type HoursFilter, type Interval } from '@vivid-beacon/core';
import { bucketSpans, type BucketSpans } from '@vivid-beacon/core/src/aggregation';
import { readMeasure, type LoadedMeasure } from '../readings/measure';
import type { ReadContext } from '../readings/readContext';

/** What a measure usually is over a stretch of time, from as many weeks before; null where too little is known. */
export async function readBaseline(
  context: ReadContext,
  loaded: LoadedMeasure,
  hours: HoursFilter | null,
  stretch: Interval,
  weeks: number,
): Promise<number | null> {
  const { zone, calendar, measure } = loaded;
  const before = weeksBefore(stretch, weeks, zone).map((each) =>
    bucketSpans(each, null, hours, zone, calendar),
  );
  const { numerator, denominator } = await readMeasure(context, loaded, oneAfterAnother(before));
  const parts = numerator.map((each, i) => ({
    numerator: each,
    denominator: denominator?.[i] ?? null,
  }));
  return baselineOf(parts, measure.per?.factor ?? 1);
}

/** Stretches that do not overlap, in order of time, as the buckets of one question. */
function oneAfterAnother(parts: readonly BucketSpans[]): BucketSpans {
  return {
    ...parts[0],
    window: { start: parts[0].window.start, end: parts[parts.length - 1].window.end },
    size: parts.length,
    start: parts.flatMap(({ start }) => start),
    end: parts.flatMap(({ end }) => end),
    spans: {
      start: parts.flatMap(({ spans }) => Array.from(spans.start)),
      end: parts.flatMap(({ spans }) => Array.from(spans.end)),
      into: parts.flatMap(({ spans }, i) => Array.from(spans.start, () => i)),
    },
  };
}
