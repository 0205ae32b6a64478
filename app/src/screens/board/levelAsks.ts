import { askReading } from '../../api/readingBatcher';
import {
  addsUp,
  coveredValue,
  isHeld,
  levelSpans,
  localWindow,
  periodOfWindow,
  periodOfLevels,
  type BoardDocument,
  type Bucket,
  type Interval,
  type LevelSpan,
  type Measure,
  type QueryAnswer,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import type { BoardFilters } from '../../boards/BoardFiltersContext';
import { readoutQuery, resolveReadout, type Lookups } from '@vivid-beacon/core/src/boards';

/** One question about levels: of a measure, or of the groups of a readout. */
export interface LevelAsk {
  readonly key: readonly unknown[];
  readonly read: (signal: AbortSignal) => Promise<readonly LevelSpan[]>;
}

/** The level requests of a board: one per measure and group with a band. */
export function levelAsks(
  document: BoardDocument,
  filters: BoardFilters,
  zone: string,
  domain: Interval,
  known: Lookups,
): LevelAsk[] {
  const byId = new Map([...known.metrics, ...known.ofFocus.map((metric) => [metric.id, metric] as const)]);
  const found = new Map<string, LevelAsk>();
  const add = (key: readonly unknown[], read: LevelAsk['read']): void => {
    found.set(JSON.stringify(key), { key, read });
  };
  for (const readout of document.readouts) {
    const { band, measures, groupBy } = readout;
    if (!band || measures.length === 0) continue;
    const shown = resolveReadout(readout, filters, known);
    const bucket = periodToJudge(measures[0], shown.window, domain);
    if (groupBy) {
      const query = readoutQuery({ ...shown, window: localWindow(domain, zone) }, byId, { bucket });
      if (!query) continue;
      add(['readings', 'query', query, band], async (signal) =>
        spansOfGroups(await askReading('query', query, signal), band, domain),
      );
      continue;
    }
    const [first] = measures;
    const unit = byId.get(first.metricId)?.unit;
    for (const measure of measures) {
      // The band is in the unit of the first.
      if (byId.get(measure.metricId)?.unit !== unit) continue;
      const ask = { measure, band, ...domain, bucket: isHeld(measure) ? null : bucket, hours: shown.hours };
      add(['readings', 'levels', ask], (signal) => askReading('levels', ask, signal));
    }
  }
  return [...found.values()];
}

/** Periods in which values are judged: of a total as long as its window, because an hour of it says nothing. */
function periodToJudge(measure: Measure, window: WindowSpec, { start, end }: Interval): Bucket {
  if (!addsUp(measure)) return periodOfLevels(end - start);
  return periodOfWindow(window, end, 'UTC');
}

function spansOfGroups(
  { start, end, groups, now }: QueryAnswer,
  band: TargetBand,
  domain: Interval,
): LevelSpan[] {
  const within = (at: number): number => Math.min(Math.max(at, domain.start), domain.end);
  const edges = [...start, end[end.length - 1]].map(within);
  return groups.flatMap(({ measures: [{ values, coverage }] }) => {
    const judged = values.map((value, i) => coveredValue({ value, coverage: coverage[i] }));
    return levelSpans(band, edges, judged, now);
  });
}
