import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { AskOf, Interval } from '@vivid-beacon/core';
import { askReading } from './readingBatcher';
import { call } from './client';
import { onTime } from './flags';
import { usePages } from './pages';

/* Queries with their keys. The first part of a key is its topic. */

export const useWatch = () =>
  useQuery({ queryKey: ['watch'], queryFn: () => call('GET /api/on-watch'), refetchInterval: 60_000 });

/** Active alarms or are over and that have these words in their names, in pages. */
export const useAlarmPages = (list: 'standing' | 'over', search: string) =>
  usePages(['alarms', 'pages', list, search], (part) =>
    call('GET /api/alarms', { query: { list, search, ...part } }),
  );

/** Number of alarms to acknowledge. */
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

/** Alarm rules in force that have these words in their names, in pages. */
export const useRulePages = (search: string) =>
  usePages(['alarms', 'rules', search], (part) =>
    call('GET /api/alarm-rules', { query: { search, ...part } }),
  );

/** One alarm rule; null = none is asked for. */
export const useRule = (id: string | null) =>
  useQuery({
    queryKey: ['alarms', 'rule', id],
    queryFn: () => call('GET /api/alarm-rules/:id', { params: { id: id! } }),
    enabled: id !== null,
  });

/** More people than anybody scrolls through; pickers that expect more search on the server. */
const MANY_PEOPLE = 500;

/** People who share a plant with the signed-in person, by name. */
export const usePeople = () =>
  useQuery({
    queryKey: ['people'],
    queryFn: async () => (await call('GET /api/people', { query: { limit: MANY_PEOPLE } })).items,
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

/** Readings are refetched every minute, because their window moves with the clock. */
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
