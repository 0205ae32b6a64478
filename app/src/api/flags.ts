import { keepPreviousData, useQuery } from '@tanstack/react-query';
import type {
  Flag,
  FlagCause,
  FlagEvent,
  FlagEvidence,
  FlagKind,
  FlagOutcome,
  FlagPriority,
  Interval,
} from '@vivid-beacon/core';
import { useChange } from './changes';
import { call } from './client';

/* Flags: what is asked about them and what is done with them. */

export type FlagList = 'open' | 'closed';

export const useFlags = (list: FlagList) =>
  useQuery({
    queryKey: ['flags', 'list', list],
    queryFn: () => call<Flag[]>('GET', `/api/flags?state=${list}`),
  });

export const useFlag = (id: string) =>
  useQuery({
    queryKey: ['flags', id],
    queryFn: () => call<{ flag: Flag; events: FlagEvent[] }>('GET', `/api/flags/${id}`),
  });

/** Flags on metrics over a stretch of time; null = not asked. */
export const useFlagsOnTime = (metricIds: readonly string[], window: Interval | null) =>
  useQuery({
    queryKey: ['flags', 'time', metricIds, window],
    queryFn: () =>
      call<Flag[]>(
        'GET',
        `/api/flags/on-time?metricIds=${metricIds.join(',')}&from=${Math.floor(window!.start)}&to=${Math.ceil(window!.end)}`,
      ),
    enabled: window !== null && metricIds.length > 0 && window.end - window.start >= 1,
    placeholderData: keepPreviousData,
  });

export const useFlagCauses = () =>
  useQuery({ queryKey: ['flags', 'causes'], queryFn: () => call<FlagCause[]>('GET', '/api/flag-causes') });

export interface FlagForm {
  readonly title: string;
  readonly note: string;
  readonly kind: FlagKind;
  readonly priority: FlagPriority;
  readonly toPersonId: string;
  readonly dueAt: number;
  readonly alarmId: string | null;
  readonly metricId: string | null;
  readonly assetId: string;
  readonly evidence: FlagEvidence | null;
}

const TOPICS = ['watch', 'flags', 'alarms'];

export const useHandFlag = () =>
  useChange((flag: FlagForm) => call<Flag>('POST', '/api/flags', flag), TOPICS);

export const useTakeFlag = () =>
  useChange((id: string) => call<Flag>('POST', `/api/flags/${id}/in-hand`), TOPICS);

export const useCommentFlag = () =>
  useChange(
    ({ id, remark }: { id: string; remark: string }) =>
      call<Flag>('POST', `/api/flags/${id}/comments`, { remark }),
    TOPICS,
  );

export const useHandFlagOn = () =>
  useChange(
    ({ id, ...body }: { id: string; toPersonId: string; remark: string }) =>
      call<Flag>('POST', `/api/flags/${id}/taker`, body),
    TOPICS,
  );

export interface FlagClosing {
  readonly id: string;
  readonly outcome: FlagOutcome;
  readonly note: string;
  readonly causeId: string | null;
  readonly minutesSpent: number | null;
}

export const useCloseFlag = () =>
  useChange(({ id, ...body }: FlagClosing) => call<Flag>('POST', `/api/flags/${id}/outcome`, body), TOPICS);

export const useReopenFlag = () =>
  useChange((id: string) => call<Flag>('DELETE', `/api/flags/${id}/outcome`), TOPICS);

export const useAddCause = () =>
  useChange((name: string) => call<FlagCause>('POST', '/api/flag-causes', { name }), ['flags']);

export const useRemoveCause = () =>
  useChange((id: string) => call<void>('DELETE', `/api/flag-causes/${id}`), ['flags']);
