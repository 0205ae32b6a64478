import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type {
  Direction,
  IndicatorDefinition,
  IndicatorReading,
  IndicatorVersion,
  Level,
  PeriodTarget,
} from '@vivid-beacon/core';
import type { TargetSuggestion } from '@vivid-beacon/core/src/engine';
import { useChange } from './changes';
import { call } from './client';

/* Indicators: their values, definitions, past and targets. */

/** One period of an indicator's past, judged by the definition and the target in force then. */
export interface JudgedPeriod {
  readonly start: number;
  readonly end: number;
  readonly value: number | null;
  readonly coverage: number;
  readonly target: number | null;
  readonly level: Level;
  readonly version: number;
}

export interface IndicatorPast {
  readonly bucket: 'hour' | 'day' | 'week' | 'month' | 'quarter' | 'year';
  readonly zone: string;
  readonly periods: readonly JudgedPeriod[];
}

const MOVES_MS = 60_000;

export const useIndicators = (on = true) =>
  useQuery({
    queryKey: ['indicators'],
    queryFn: () => call<IndicatorReading[]>('GET', '/api/indicators'),
    refetchInterval: MOVES_MS,
    enabled: on,
  });

export const useIndicator = (id: string) =>
  useQuery({
    queryKey: ['indicators', id],
    queryFn: () =>
      call<{
        indicator: IndicatorReading;
        versions: readonly IndicatorVersion[];
        targets: readonly PeriodTarget[];
      }>('GET', `/api/indicators/${id}`),
    refetchInterval: MOVES_MS,
  });

export const useIndicatorPast = (id: string, periods: number) =>
  useQuery({
    queryKey: ['indicators', id, 'past', periods],
    queryFn: () => call<IndicatorPast>('GET', `/api/indicators/${id}/history?periods=${periods}`),
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
      call<Pick<IndicatorReading, 'target' | 'band' | 'reading'> & IndicatorPast>(
        'POST',
        '/api/indicators/preview',
        { definition, values: targets },
        signal,
      ),
    enabled: definition !== null,
    placeholderData: keepPreviousData,
    retry: false,
  });

/** Targets that the past suggests; null = not asked. */
export const useSuggestedTargets = (
  ask: (Pick<IndicatorDefinition, 'measure' | 'window' | 'hours'> & { direction: Direction }) | null,
) =>
  useQuery({
    queryKey: ['indicators', 'suggested', ask],
    queryFn: () =>
      call<{ bucket: string; suggestions: readonly TargetSuggestion[] }>(
        'POST',
        '/api/indicators/suggested-targets',
        ask,
      ),
    enabled: ask !== null,
    staleTime: MOVES_MS,
  });

const TOPICS = ['indicators', 'watch', 'readings'];

export const useSaveIndicator = () =>
  useChange(
    ({ id, from, definition }: { id: string | null; from: number; definition: IndicatorDefinition }) =>
      id === null
        ? call<unknown>('POST', '/api/indicators', definition)
        : call<unknown>('PUT', `/api/indicators/${id}`, { from, definition }),
    TOPICS,
  );

export const useRemoveIndicator = () =>
  useChange((id: string) => call<void>('DELETE', `/api/indicators/${id}`), TOPICS);

export const useSaveTargets = () =>
  useChange(
    ({ id, values }: { id: string; values: readonly { start: string; value: number | null }[] }) =>
      call<void>('PUT', `/api/indicators/${id}/targets`, { values }),
    TOPICS,
  );
