import { useMemo } from 'react';
import { useQueries } from '@tanstack/react-query';
import {
  DAY_MS,
  levelSpans,
  MINIMUM_COVERAGE,
  worstSpans,
  type Board,
  type Bucket,
  type Interval,
  type LevelSpan,
  type QueryAnswer,
  type TargetBand,
} from '@vivid-beacon/core';
import { call } from '../../api/client';
import { askLevels, useAssets, useMetrics } from '../../api/queries';
import type { BoardLook } from '../../boards/BoardLookContext';
import { localWindow } from '../../boards/localWindow';
import { groupQuery } from '../../boards/parts';
import { resolveReadout } from '../../boards/resolveReadout';

const LONGEST_BY_THE_HOUR_MS = 35 * DAY_MS;

/** One question about levels: of a measure, or of the groups of a readout. */
interface Ask {
  readonly key: readonly unknown[];
  readonly read: (signal: AbortSignal) => Promise<LevelSpan[]>;
}

/**
 * When anything on the board with a band was not Clear, over the rail's length: every measure, every group;
 * at each moment the worst level wins.
 */
export function useBoardSpans(
  { document }: Board,
  look: BoardLook,
  zone: string,
  domain: Interval | null,
): LevelSpan[] {
  const metrics = useMetrics().data;
  const assets = useAssets().data;
  const asks = useMemo((): Ask[] => {
    if (!domain || !metrics || !assets) return [];
    const byId = new Map(metrics.map((metric) => [metric.id, metric]));
    const bucket: Bucket = domain.end - domain.start > LONGEST_BY_THE_HOUR_MS ? 'day' : 'hour';
    const found = new Map<string, Ask>();
    const add = (key: readonly unknown[], read: Ask['read']): void => {
      found.set(JSON.stringify(key), { key, read });
    };
    for (const readout of document.readouts) {
      const { band, measures, groupBy } = readout;
      if (!band || measures.length === 0) continue;
      const shown = resolveReadout(readout, look, metrics, assets);
      if (groupBy) {
        const query = groupQuery({ ...shown, window: localWindow(domain, zone) }, byId, bucket);
        if (!query) continue;
        add(['readings', 'query', query, band], async (signal) =>
          spansOfGroups(await call<QueryAnswer>('POST', '/api/readings/query', query, signal), band),
        );
        continue;
      }
      const [first] = measures;
      const unit = byId.get(first.metricId)?.unit;
      for (const measure of measures) {
        // The band is in the unit of the first.
        if (byId.get(measure.metricId)?.unit !== unit) continue;
        const ask = { measure, band, ...domain, bucket, hours: shown.hours };
        add(['readings', 'levels', ask], (signal) => askLevels(ask, signal));
      }
    }
    return [...found.values()];
  }, [document, look, zone, domain, metrics, assets]);
  const results = useQueries({
    queries: asks.map(({ key, read }) => ({
      queryKey: key,
      queryFn: ({ signal }: { signal: AbortSignal }) => read(signal),
      staleTime: 60_000,
      retry: false,
    })),
  });
  return worstSpans(
    results
      .flatMap(({ data }) => data ?? [])
      .filter(({ level }) => level === 'breach' || level === 'caution'),
  );
}

function spansOfGroups({ start, end, groups, now }: QueryAnswer, band: TargetBand): LevelSpan[] {
  const edges = [...start, end[end.length - 1]];
  return groups.flatMap(({ values, coverage }) => {
    const judged = values.map((value, i) => (coverage[i] >= MINIMUM_COVERAGE ? value : null));
    return levelSpans(band, edges, judged, now);
  });
}
