import { useQuery } from '@tanstack/react-query';
import { useChange } from './changes';
import { call } from './client';

/** What has been set up so far. */
export const useFirstSteps = () =>
  useQuery({ queryKey: ['watch', 'first steps'], queryFn: () => call('GET /api/first-steps') });

export const usePutStepsAway = () =>
  useChange((away: boolean) => call('PUT /api/first-steps', { body: { away } }), ['watch']);
