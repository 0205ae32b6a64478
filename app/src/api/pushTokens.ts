import { useQuery } from '@tanstack/react-query';
import type { PushRule, SeriesMapping } from '@vivid-beacon/core';
import { call } from './client';
import { useChange } from './changes';

/** Series heard with a token, those that wait to be mapped first. */
export const useHeard = (id: string) =>
  useQuery({
    queryKey: ['tokens', id, 'heard'],
    queryFn: () => call('GET /api/push-tokens/:id/heard', { params: { id } }),
  });

export const useChangeRule = (id: string) =>
  useChange(
    (rule: PushRule) => call('PUT /api/push-tokens/:id/rule', { params: { id }, body: rule }),
    ['tokens'],
  );

/** Maps a received series to an existing metric, a new one, or none. */
export const useMapSeries = (id: string) =>
  useChange(
    (mapping: SeriesMapping) => call('POST /api/push-tokens/:id/heard', { params: { id }, body: mapping }),
    ['tokens', 'metrics'],
  );
