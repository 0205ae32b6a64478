import {
  checkBand,
  levelOf,
  WHOLE_SCOPE,
  type HoursFilter,
  type Measure,
  type Reading,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { answerQuery } from './query';

export interface ReadAsk {
  readonly measure: Measure;
  readonly window: WindowSpec;
  readonly band: TargetBand | null;
  readonly hours?: HoursFilter | null;
  /** What `previous` is compared with; default the period before. */
  readonly compare?: 'before' | 'lastYear';
}

/** One value of a measure over a window, judged by a band, with how it was made: a query about a group of one. */
export async function readValue(db: Queryable, ask: ReadAsk, now: number): Promise<Reading> {
  if (ask.band) checkBand(ask.band);
  const { metricId, summary, per } = ask.measure;
  const answer = await answerQuery(
    db,
    {
      select: { metricIds: [metricId] },
      summary,
      per: per && { select: { metricIds: [per.metricId] }, summary: per.summary, factor: per.factor },
      window: ask.window,
      bucket: null,
      groupBy: { kind: 'all' },
      scope: WHOLE_SCOPE,
      hours: ask.hours ?? null,
      compare: ask.compare ?? 'before',
      provenance: true,
    },
    now,
  );
  const [group] = answer.groups;
  const [value, coverage] = [group.values[0], group.coverage[0]];
  return {
    value,
    unit: per?.unit ?? answer.unit,
    level: ask.band ? levelOf(ask.band, value, coverage) : value === null ? 'nodata' : 'clear',
    coverage,
    partial: answer.window.end > now,
    previous: group.previous,
    now,
    ...group.making!,
  };
}
