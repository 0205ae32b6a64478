import { useCallback, useMemo } from 'react';
import { useQueries, useQueryClient } from '@tanstack/react-query';
import {
  breachWindow,
  DAY_MS,
  worstSpans,
  type Board,
  type Interval,
  type LevelSpan,
} from '@vivid-beacon/core';
import { useFollowed } from '../../boards/useFollowed';
import { useKnown } from '../../boards/useShown';
import type { BoardFilters } from '../../boards/BoardFiltersContext';
import { levelAsks, type LevelAsk } from './levelAsks';

/** How far away a breach is searched for. */
const SEARCHED_MS = 35 * DAY_MS;

const queryOf = ({ key, read }: LevelAsk) => ({
  queryKey: key,
  queryFn: ({ signal }: { signal: AbortSignal }) => read(signal),
  staleTime: 60_000,
  retry: false,
});

const notClear = (spans: readonly LevelSpan[]): LevelSpan[] =>
  worstSpans(spans.filter(({ level }) => level === 'breach' || level === 'caution'));

interface BoardSpans {
  /** The levels of all readouts with a band; at each moment the worst wins. */
  readonly spans: readonly LevelSpan[];
  /** The window around the breach before or after `window`; null where none lies within five weeks. */
  readonly findBreach: (window: Interval, step: -1 | 1, now: number) => Promise<Interval | null>;
}

/** The levels of everything on a board over the rail's length, and the way to breaches beyond it. */
export function useBoardSpans(
  { document: written }: Board,
  filters: BoardFilters,
  zone: string,
  domain: Interval | null,
): BoardSpans {
  const client = useQueryClient();
  const readouts = useFollowed(written.readouts);
  const document = useMemo(() => ({ ...written, readouts }), [written, readouts]);
  const known = useKnown(readouts, filters);
  const asks = useMemo(
    () => (domain && known.whole ? levelAsks(document, filters, zone, domain, known) : []),
    [document, filters, zone, domain, known],
  );
  const results = useQueries({ queries: asks.map(queryOf) });
  const findBreach = useCallback(
    async (window: Interval, step: -1 | 1, now: number): Promise<Interval | null> => {
      if (!known.whole) return null;
      // With the window itself, for a breach may reach into it; so far it is told by the hour.
      const length = Math.max(SEARCHED_MS, 2 * (window.end - window.start));
      const searched =
        step < 0
          ? { start: window.end - length, end: Math.min(window.end, now) }
          : { start: window.start, end: Math.min(window.start + length, now) };
      if (searched.end <= searched.start) return null;
      const wide = levelAsks(document, filters, zone, searched, known);
      const found = await Promise.all(wide.map((ask) => client.fetchQuery(queryOf(ask)).catch(() => [])));
      return breachWindow(notClear(found.flat()), window, step);
    },
    [client, document, filters, zone, known],
  );
  return { spans: notClear(results.flatMap(({ data }) => data ?? [])), findBreach };
}
