import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { AskOf, Asset, Interval, Metric, PageOf } from '@vivid-beacon/core';
import { askReading } from './askTogether';
import { call } from './client';
import { onTime } from './flags';

/* Every question to the server, with the key it is kept under. The first word of a key is its topic. */

export const useWatch = () =>
  useQuery({ queryKey: ['watch'], queryFn: () => call('GET /api/on-watch'), refetchInterval: 60_000 });

export const useAlarms = () => useQuery({ queryKey: ['alarms'], queryFn: () => call('GET /api/alarms') });

/** How many alarms wait for somebody to acknowledge them. */
export const useWaitingAlarms = () =>
  useQuery({ queryKey: ['alarms', 'waiting'], queryFn: () => call('GET /api/alarms/waiting') });

/** When alarms of given metrics were raised in a window; null = none is asked for. */
export const useAlarmsOnTime = (metricIds: readonly string[], window: Interval | null) =>
  useQuery({
    queryKey: ['alarms', 'time', metricIds, window],
    queryFn: () => call('GET /api/alarms/on-time', { query: onTime(metricIds, window!) }),
    enabled: window !== null && metricIds.length > 0 && window.end - window.start >= 1,
    placeholderData: keepPreviousData,
  });

export const useAlarm = (id: string) =>
  useQuery({ queryKey: ['alarms', id], queryFn: () => call('GET /api/alarms/:id', { params: { id } }) });

/** `operators` null = as many as are kept for everybody. */
export const useAlarmHealth = (days: 1 | 7 | 30, operators: number | null) =>
  useQuery({
    queryKey: ['alarms', 'health', days, operators],
    queryFn: () => call('GET /api/alarm-health', { query: { days, operators: operators ?? undefined } }),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
  });

export const useAlarmRules = () =>
  useQuery({ queryKey: ['alarms', 'rules'], queryFn: () => call('GET /api/alarm-rules') });

export const usePeople = () => useQuery({ queryKey: ['people'], queryFn: () => call('GET /api/people') });

const MOST_ITEMS = 500;

/** Every item of a long list, page by page. */
async function wholeList<Item>(pageFrom: (offset: number) => Promise<PageOf<Item>>): Promise<Item[]> {
  const items: Item[] = [];
  for (;;) {
    const page = await pageFrom(items.length);
    items.push(...page.items);
    if (page.items.length === 0 || items.length >= page.total) return items;
  }
}

export const useAssets = () =>
  useQuery({
    queryKey: ['metrics', 'assets'],
    queryFn: () =>
      wholeList<Asset>((offset) => call('GET /api/assets', { query: { offset, limit: MOST_ITEMS } })),
  });

export const useMetrics = () =>
  useQuery({
    queryKey: ['metrics'],
    queryFn: () =>
      wholeList<Metric>((offset) => call('GET /api/metrics', { query: { offset, limit: MOST_ITEMS } })),
    staleTime: 30_000,
  });

export const useBoards = () => useQuery({ queryKey: ['boards'], queryFn: () => call('GET /api/boards') });

export const useBoard = (id: string) =>
  useQuery({
    queryKey: ['boards', id],
    queryFn: () => call('GET /api/boards/:id', { params: { id } }),
    enabled: id !== 'new',
  });

export const useIntakes = () =>
  useQuery({ queryKey: ['metrics', 'intakes'], queryFn: () => call('GET /api/intakes') });

export const useTokens = () =>
  useQuery({ queryKey: ['tokens'], queryFn: () => call('GET /api/push-tokens') });

export const useIndicatorLosses = (days: number) =>
  useQuery({
    queryKey: ['readings', 'losses', days],
    queryFn: () => call('GET /api/indicators/time-by-level', { query: { days } }),
  });

/** A reading is asked for again every minute, because its window moves with the clock. */
const WINDOW_MOVES_MS = 60_000;

export const useReading = (ask: AskOf<'value'> | null) =>
  useQuery({
    queryKey: ['readings', 'value', ask],
    queryFn: ({ signal }) => askReading('value', ask!, signal),
    enabled: ask !== null,
    placeholderData: keepPreviousData,
    refetchInterval: WINDOW_MOVES_MS,
  });

export const useTrend = (ask: AskOf<'trend'> | null) =>
  useQuery({
    queryKey: ['readings', 'trend', ask],
    queryFn: ({ signal }) => askReading('trend', ask!, signal),
    enabled: ask !== null && ask.columns >= 10,
    placeholderData: keepPreviousData,
    refetchInterval: WINDOW_MOVES_MS,
  });

export const useDistribution = (ask: AskOf<'distribution'> | null) =>
  useQuery({
    queryKey: ['readings', 'distribution', ask],
    queryFn: ({ signal }) => askReading('distribution', ask!, signal),
    enabled: ask !== null,
    staleTime: 60_000,
  });
