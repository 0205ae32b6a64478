import { useMemo } from 'react';
import { useQueries } from '@tanstack/react-query';
import { worstSpans, type Board, type Interval, type LevelSpan } from '@vivid-beacon/core';
import { askLevels } from '../../api/queries';

const LONGEST_BY_THE_HOUR_MS = 35 * 86_400_000;

/** When any readout with a band was not Clear, over the rail's length: the worst level wins. */
export function useBoardSpans({ document }: Board, domain: Interval | null): LevelSpan[] {
  const banded = useMemo(() => {
    const seen = new Set<string>();
    return document.readouts.flatMap(({ measures, band, groupBy }) => {
      const [measure] = measures;
      if (!measure || !band || groupBy) return [];
      const key = JSON.stringify([measure, band]);
      if (seen.has(key)) return [];
      seen.add(key);
      return [{ measure, band }];
    });
  }, [document]);
  const results = useQueries({
    queries: banded.map(({ measure, band }) => ({
      queryKey: ['readings', 'levels', measure, band, domain],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        askLevels(
          {
            measure,
            band,
            ...domain!,
            bucket: domain!.end - domain!.start > LONGEST_BY_THE_HOUR_MS ? 'day' : 'hour',
          },
          signal,
        ),
      enabled: domain !== null,
      staleTime: 60_000,
    })),
  });
  return worstSpans(
    results
      .flatMap(({ data }) => data ?? [])
      .filter(({ level }) => level === 'breach' || level === 'caution'),
  );
}
