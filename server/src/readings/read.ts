import { checkBand, WHOLE_SCOPE, type Reading, type ValueAsk } from '@vivid-beacon/core';
import { answerQuery } from './query';
import type { ReadContext } from './readContext';

/** One value of a measure over a window, judged by a band, with how it was made: a query about a group of one. */
export async function readValue(context: ReadContext, ask: ValueAsk): Promise<Reading> {
  if (ask.band) checkBand(ask.band);
  const { metricId, summary, per } = ask.measure;
  const upper = { metricIds: [metricId] };
  const lower = per && { select: { metricIds: [per.metricId] }, summary: per.summary, factor: per.factor };
  const answer = await answerQuery(context, {
    measures: [{ select: upper, summary, per: lower, band: ask.band }],
    window: ask.window,
    bucket: null,
    groupBy: { kind: 'all' },
    scope: WHOLE_SCOPE,
    hours: ask.hours,
    compare: ask.compare,
    provenance: true,
  });
  const { values, coverage, levels, partial, asOf, previous, provenance } = answer.groups[0].measures[0];
  return {
    value: values[0],
    unit: per?.unit ?? answer.units[0],
    level: levels?.[0] ?? (values[0] === null ? 'nodata' : 'clear'),
    coverage: coverage[0],
    partial,
    previous,
    asOf,
    now: answer.now,
    provenance: provenance!,
  };
}
