import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { IndicatorDefinition, IndicatorReading, PeriodTarget, SuggestAsk } from '@vivid-beacon/core';
import { useChange } from './changes';
import { byIds, useById } from './catalogue';
import { call } from './client';
import { usePages } from './pages';

/* Indicators: their values, definitions, past and targets. */

const MOVES_MS = 60_000;

/** Indicators that have these words in their names, the worst first, in pages. */
export const useIndicatorPages = (search: string) =>
  usePages(['indicators', 'pages', search], (part) =>
    call('GET /api/indicators', { query: { search, ...part } }),
  );

const loader = byIds<IndicatorReading>((ids) => call('GET /api/indicators', { query: { ids, limit: 200 } }));

/** Indicators by id, batched into one request. */
export const useIndicatorsById = (ids: readonly (string | null | undefined)[]) =>
  useById(['indicators', 'present'], ids, loader, MOVES_MS);

export const useIndicator = (id: string) =>
  useQuery({
    queryKey: ['indicators', id],
    queryFn: () => call('GET /api/indicators/:id', { params: { id } }),
    refetchInterval: MOVES_MS,
  });

export const useIndicatorPast = (id: string, periods: number) =>
  useQuery({
    queryKey: ['indicators', id, 'past', periods],
    queryFn: () => call('GET /api/indicators/:id/history', { params: { id }, query: { periods } }),
    placeholderData: keepPreviousData,
    refetchInterval: MOVES_MS,
  });

/** What a definition that is being written gives now and gave before; null = not asked. */
export const useIndicatorPreview = (
  definition: IndicatorDefinition | null,
  targets: readonly PeriodTarget[],
) =>
  useQuery({
    queryKey: ['indicators', 'preview', definition, targets],
    queryFn: ({ signal }) =>
      call('POST /api/indicators/preview', { body: { definition: definition!, values: targets } }, signal),
    enabled: definition !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });

/** Targets that the past suggests; null = not asked. */
export const useSuggestedTargets = (ask: SuggestAsk | null) =>
  useQuery({
    queryKey: ['indicators', 'suggested', ask],
    queryFn: () => call('POST /api/indicators/suggested-targets', { body: ask! }),
    enabled: ask !== null,
    staleTime: MOVES_MS,
  });

const TOPICS = ['indicators', 'watch', 'readings'];

export const useSaveIndicator = () =>
  useChange(
    async ({
      id,
      from,
      definition,
    }: {
      id: string | null;
      from: number;
      definition: IndicatorDefinition;
    }) => {
      if (id === null) await call('POST /api/indicators', { body: definition });
      else await call('PUT /api/indicators/:id', { params: { id }, body: { from, definition } });
    },
    TOPICS,
  );

export const useRemoveIndicator = () =>
  useChange((id: string) => call('DELETE /api/indicators/:id', { params: { id } }), [...TOPICS, 'removals']);

/** A target to set for a period, or for a single month of it; null takes it away. */
interface TargetChange extends Omit<PeriodTarget, 'value'> {
  readonly value: number | null;
}

export const useSaveTargets = () =>
  useChange(
    ({ id, values }: { id: string; values: readonly TargetChange[] }) =>
      call('PUT /api/indicators/:id/targets', { params: { id }, body: { values } }),
    TOPICS,
  );
