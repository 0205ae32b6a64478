import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type { Api, CallOf, FlagClosing, FlagInput, Interval } from '@vivid-beacon/core';
import { useChange } from './changes';
import { call } from './client';
import { usePages } from './pages';

/* Queries and mutations of flags. */

export type FlagSearch = Omit<
  NonNullable<CallOf<'GET /api/flags', Api['GET /api/flags']>['query']>,
  'offset' | 'limit'
>;

/** Flags that are looked for, in pages. */
export const useFlagPages = (filter: FlagSearch) =>
  usePages(['flags', 'pages', filter], (part) => call('GET /api/flags', { query: { ...filter, ...part } }));

export const useFlag = (id: string) =>
  useQuery({ queryKey: ['flags', id], queryFn: () => call('GET /api/flags/:id', { params: { id } }) });

/** Flags on metrics over a stretch of time; null = not asked. */
export const useFlagsOnTime = (metricIds: readonly string[], window: Interval | null) =>
  useQuery({
    queryKey: ['flags', 'time', metricIds, window],
    queryFn: () => call('GET /api/flags/on-time', { query: onTime(metricIds, window!) }),
    enabled: window !== null && metricIds.length > 0 && window.end - window.start >= 1,
    placeholderData: keepPreviousData,
  });

/** Query parameters for metrics over a stretch of time, in whole ms. */
export const onTime = (metricIds: readonly string[], { start, end }: Interval) => ({
  metricIds: metricIds.join(','),
  from: Math.floor(start),
  to: Math.ceil(end),
});

export const useFlagCauses = () =>
  useQuery({ queryKey: ['flags', 'causes'], queryFn: () => call('GET /api/flag-causes') });

const TOPICS = ['watch', 'flags', 'alarms'];

export const useHandFlag = () =>
  useChange((flag: FlagInput) => call('POST /api/flags', { body: flag }), TOPICS);

export const useTakeFlag = () =>
  useChange((id: string) => call('POST /api/flags/:id/in-hand', { params: { id } }), TOPICS);

export const useCommentFlag = () =>
  useChange(
    ({ id, remark }: { id: string; remark: string }) =>
      call('POST /api/flags/:id/comments', { params: { id }, body: { remark } }),
    TOPICS,
  );

export const useHandFlagOn = () =>
  useChange(
    ({ id, ...body }: { id: string; toPersonId: string; remark: string }) =>
      call('POST /api/flags/:id/taker', { params: { id }, body }),
    TOPICS,
  );

export const useCloseFlag = () =>
  useChange(
    ({ id, ...body }: FlagClosing & { readonly id: string }) =>
      call('POST /api/flags/:id/outcome', { params: { id }, body }),
    TOPICS,
  );

export const useReopenFlag = () =>
  useChange((id: string) => call('DELETE /api/flags/:id/outcome', { params: { id } }), TOPICS);

export const useAddCause = () =>
  useChange((name: string) => call('POST /api/flag-causes', { body: { name } }), ['flags']);

export const useRemoveCause = () =>
  useChange((id: string) => call('DELETE /api/flag-causes/:id', { params: { id } }), ['flags']);
