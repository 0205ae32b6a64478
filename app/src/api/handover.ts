import { useQuery } from '@tanstack/react-query';
import type { Handover } from '@vivid-beacon/core';
import { useChange } from './changes';
import { call } from './client';

/** What happened in a shift of a plant; `shift` = its beginning, null = the one under way. */
export const useHandover = (plantId: string | null, shift: number | null) =>
  useQuery({
    queryKey: ['watch', 'handover', plantId, shift],
    queryFn: () =>
      call<Handover>('GET', `/api/handover?plantId=${plantId}${shift === null ? '' : `&shift=${shift}`}`),
    enabled: plantId !== null,
    refetchInterval: 60_000,
  });

export const useAddHandoverNote = () =>
  useChange(
    (note: { plantId: string; shift: number; text: string }) =>
      call<{ id: string }>('POST', '/api/handover/notes', note),
    ['watch'],
  );
