import { keepPreviousData, useQuery } from '@tanstack/react-query';
import {
  type Alarm,
  type AlarmHealth,
  type HealthCheck,
  type AlarmEvent,
  type AlarmRule,
  type Asset,
  type Board,
  type Bucket,
  type HoursFilter,
  type IndicatorLoss,
  type Intake,
  type Interval,
  type LevelSpan,
  type Measure,
  type Metric,
  type PageOf,
  type Person,
  type Query,
  type QueryAnswer,
  type PushToken,
  type RaisedAlarm,
  type Reading,
  type TargetBand,
  type TrendAnswer,
  type Watch,
  type WindowSpec,
} from '@vivid-beacon/core';
import { askReading } from './askTogether';
import { call } from './client';

/* Every question to the server, with the key it is kept under. The first word of a key is its topic. */

export const useWatch = () =>
  useQuery({
    queryKey: ['watch'],
    queryFn: () => call<Watch>('GET', '/api/on-watch'),
    refetchInterval: 60_000,
  });

export const useAlarms = () =>
  useQuery({
    queryKey: ['alarms'],
    queryFn: () => call<{ standing: Alarm[]; past: Alarm[] }>('GET', '/api/alarms'),
  });

/** How many alarms wait for somebody to acknowledge them. */
export const useWaitingAlarms = () =>
  useQuery({
    queryKey: ['alarms', 'waiting'],
    queryFn: () => call<{ count: number }>('GET', '/api/alarms/waiting'),
  });

/** When alarms of given metrics were raised in a window; null = none is asked for. */
export const useAlarmsOnTime = (metricIds: readonly string[], window: Interval | null) =>
  useQuery({
    queryKey: ['alarms', 'time', metricIds, window],
    queryFn: () =>
      call<RaisedAlarm[]>(
        'GET',
        `/api/alarms/on-time?metricIds=${metricIds.join(',')}&from=${Math.floor(window!.start)}&to=${Math.ceil(window!.end)}`,
      ),
    enabled: window !== null && metricIds.length > 0 && window.end - window.start >= 1,
    placeholderData: keepPreviousData,
  });

export const useAlarm = (id: string) =>
  useQuery({
    queryKey: ['alarms', id],
    queryFn: () => call<{ alarm: Alarm; events: AlarmEvent[]; earlier: Alarm[] }>('GET', `/api/alarms/${id}`),
  });

/** A rule that raised alarms, as it is now. */
export interface RaisingRule {
  readonly id: string;
  readonly name: string;
  readonly inForce: boolean;
}

/** `operators` null = as many as are kept for everybody. */
export const useAlarmHealth = (days: number, operators: number | null) =>
  useQuery({
    queryKey: ['alarms', 'health', days, operators],
    queryFn: () =>
      call<{ health: AlarmHealth; checks: HealthCheck[]; rules: RaisingRule[] }>(
        'GET',
        `/api/alarm-health?days=${days}${operators === null ? '' : `&operators=${operators}`}`,
      ),
    placeholderData: keepPreviousData,
    refetchInterval: 60_000,
  });

export const useAlarmRules = () =>
  useQuery({ queryKey: ['alarms', 'rules'], queryFn: () => call<AlarmRule[]>('GET', '/api/alarm-rules') });

export const usePeople = () =>
  useQuery({ queryKey: ['people'], queryFn: () => call<Person[]>('GET', '/api/people') });

/** Every item of a long list, page by page. */
async function wholeList<Item>(path: string): Promise<Item[]> {
  const items: Item[] = [];
  for (;;) {
    const page = await call<PageOf<Item>>('GET', `${path}?offset=${items.length}&limit=500`);
    items.push(...page.items);
    if (page.items.length === 0 || items.length >= page.total) return items;
  }
}

export const useAssets = () =>
  useQuery({ queryKey: ['metrics', 'assets'], queryFn: () => wholeList<Asset>('/api/assets') });

export const useMetrics = () =>
  useQuery({
    queryKey: ['metrics'],
    queryFn: () => wholeList<Metric>('/api/metrics'),
    staleTime: 30_000,
  });

export const useBoards = () =>
  useQuery({ queryKey: ['boards'], queryFn: () => call<Board[]>('GET', '/api/boards') });

export const useBoard = (id: string) =>
  useQuery({
    queryKey: ['boards', id],
    queryFn: () => call<Board>('GET', `/api/boards/${id}`),
    enabled: id !== 'new',
  });

export const useIntakes = () =>
  useQuery({
    queryKey: ['metrics', 'intakes'],
    queryFn: () => call<Omit<Intake, 'lines'>[]>('GET', '/api/intakes'),
  });

export const useTokens = () =>
  useQuery({ queryKey: ['tokens'], queryFn: () => call<PushToken[]>('GET', '/api/push-tokens') });

export const useIndicatorLosses = (days: number) =>
  useQuery({
    queryKey: ['readings', 'losses', days],
    queryFn: () => call<IndicatorLoss[]>('GET', `/api/indicators/time-by-level?days=${days}`),
  });

/** A reading is asked for again every minute, because its window moves with the clock. */
const WINDOW_MOVES_MS = 60_000;

export interface ReadingAsk {
  readonly measure: Measure;
  readonly window: WindowSpec;
  readonly band: TargetBand | null;
  readonly hours?: HoursFilter | null;
}

export const useReading = (ask: ReadingAsk | null) =>
  useQuery({
    queryKey: ['readings', 'value', ask],
    queryFn: ({ signal }) => askReading<'value', Reading>('value', ask, signal),
    enabled: ask !== null,
    placeholderData: keepPreviousData,
    refetchInterval: WINDOW_MOVES_MS,
  });

export interface TrendAsk {
  readonly measure: Measure;
  readonly window: WindowSpec;
  readonly bucket: Bucket | null;
  readonly columns: number;
  readonly hours?: HoursFilter | null;
}

/** The course of a measure. */
export const askTrend = (ask: TrendAsk, signal?: AbortSignal): Promise<TrendAnswer> =>
  askReading('trend', ask, signal);

/** A question to the planner. */
export const askQuery = (query: Query, signal?: AbortSignal): Promise<QueryAnswer> =>
  askReading('query', query, signal);

export const useTrend = (ask: TrendAsk | null) =>
  useQuery({
    queryKey: ['readings', 'trend', ask],
    queryFn: ({ signal }) => askTrend(ask!, signal),
    enabled: ask !== null && ask.columns >= 10,
    placeholderData: keepPreviousData,
    refetchInterval: WINDOW_MOVES_MS,
  });

export interface LevelsAsk {
  readonly measure: Measure;
  readonly band: TargetBand;
  readonly start: number;
  readonly end: number;
  readonly bucket: Bucket;
  readonly hours?: HoursFilter | null;
}

export const askLevels = (ask: LevelsAsk, signal?: AbortSignal) =>
  askReading<'levels', LevelSpan[]>('levels', ask, signal);

export interface DistributionAsk {
  readonly measure: Measure;
  readonly window: WindowSpec;
}

interface Distribution {
  readonly values: readonly number[];
  readonly bucket: Bucket;
  readonly interval: Interval;
}

export const askDistribution = (ask: DistributionAsk, signal?: AbortSignal) =>
  askReading<'distribution', Distribution>('distribution', ask, signal);

export const useDistribution = (ask: DistributionAsk | null) =>
  useQuery({
    queryKey: ['readings', 'distribution', ask],
    queryFn: ({ signal }) => askDistribution(ask!, signal),
    enabled: ask !== null,
    staleTime: 60_000,
  });
