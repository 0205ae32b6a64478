import { useQuery } from '@tanstack/react-query';
import type { HeardSeries, MetricKind, PushRule } from '@vivid-beacon/core';
import { call } from './client';
import { useChange } from './changes';

/** Series heard with a token, those that wait to be mapped first. */
export const useHeard = (tokenId: string) =>
  useQuery({
    queryKey: ['tokens', tokenId, 'heard'],
    queryFn: () => call<HeardSeries[]>('GET', `/api/push-tokens/${tokenId}/heard`),
  });

export const useChangeRule = (tokenId: string) =>
  useChange((rule: PushRule) => call<void>('PUT', `/api/push-tokens/${tokenId}/rule`, rule), ['tokens']);

/** Gives a heard series a metric that is there, a new one, or none. */
export interface SeriesMapping {
  readonly series: string;
  readonly metricId?: string | null;
  readonly make?: {
    readonly assetId: string;
    readonly name: string;
    readonly unit: string;
    readonly kind: MetricKind;
    readonly intervalMs: number;
  };
}

export const useMapSeries = (tokenId: string) =>
  useChange(
    (mapping: SeriesMapping) =>
      call<{ metricId: string | null }>('POST', `/api/push-tokens/${tokenId}/heard`, mapping),
    ['tokens', 'metrics'],
  );
