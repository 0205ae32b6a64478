import { checkBand, isCovered, type Reading, type ValueAsk } from '@vivid-beacon/core';
import { answerQuery } from './query';
import { queryOfOne } from './queryOfOne';
import type { ReadContext } from './readContext';

/** One value of a measure over a window, judged by a band, with how it was made: a query about a group of one. */
export async function readValue(context: ReadContext, ask: ValueAsk): Promise<Reading> {
  if (ask.band) checkBand(ask.band);
  const answer = await answerQuery(context, {
    ...queryOfOne(ask.measure, ask.band),
    window: ask.window,
    bucket: null,
    hours: ask.hours,
    compare: ask.compare,
    provenance: true,
  });
  const { values, coverage, levels, partial, asOf, previous, provenance } = answer.groups[0].measures[0];
  return {
    value: values[0],
    unit: ask.measure.per?.unit ?? answer.units[0],
    level: levels?.[0] ?? (values[0] === null || !isCovered({ coverage: coverage[0] }) ? 'nodata' : 'clear'),
    coverage: coverage[0],
    partial,
    previous,
    asOf,
    now: answer.now,
    provenance: provenance!,
  };
}
