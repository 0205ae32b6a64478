import { useQuery } from '@tanstack/react-query';
import { useChange } from './changes';
import { call } from './client';

/** What happened in a shift of a plant; `shift` = its beginning, null = the one under way. */
export const useHandover = (plantId: string | null, shift: number | null) =>
  useQuery({
    queryKey: ['watch', 'handover', plantId, shift],
    queryFn: () => call('GET /api/handover', { query: { plantId: plantId!, shift } }),
    enabled: plantId !== null,
    refetchInterval: 60_000,
  });

export const useAddHandoverNote = () =>
  useChange(
    (note: { plantId: string; shift: number; text: string }) =>
      call('POST /api/handover/notes', { body: note }),
    ['watch'],
  );
