import { useMutation, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { formatsOfLocales, setFormats, type SessionState, type SignedInPerson } from '@vivid-beacon/core';
import { call, setFormToken } from './client';
import { forgetQueries } from './queryPersistence';
import { DEVICE_STORE } from './useQueryPersistence';

const KEY = ['session'];

/** What a page knows from its session before anything is drawn. */
function take({ csrfToken, formats }: SessionState): void {
  setFormToken(csrfToken);
  setFormats(formats ?? formatsOfLocales(navigator.languages));
}

async function keepToken(asked: Promise<SessionState>): Promise<SessionState> {
  const state = await asked;
  take(state);
  return state;
}

/** Who is signed in. */
export function useSession() {
  return useQuery({
    queryKey: KEY,
    queryFn: () => keepToken(call('GET /api/session')),
    staleTime: Infinity,
  });
}

/** Where a browser goes to sign in with the provider. @param to the address of the app to come back to. */
export const providerAddress = (to: string): string => `/api/sign-in/start?to=${encodeURIComponent(to)}`;

/** The signed-in person; only below the signed-in layout. */
export function usePerson(): SignedInPerson | null {
  return useSession().data?.person ?? null;
}

/** Takes the form token of a session that goes on under a new id. */
export function keepFormToken(state: SessionState): void {
  take(state);
}

/** Takes a session that was begun, with its form token. */
export function keepSession(client: QueryClient, state: SessionState): void {
  keepFormToken(state);
  client.setQueryData(KEY, state);
}

/** Forgets what was read for somebody else, or with other rights: here, and on the device. */
export async function forgetEverythingElse(client: QueryClient): Promise<void> {
  client.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== KEY[0] });
  await forgetQueries(DEVICE_STORE);
}

/** Forgets the same, and reads what is on screen again: nothing of before stays there meanwhile. */
export async function readEverythingElseAgain(client: QueryClient): Promise<void> {
  await forgetQueries(DEVICE_STORE);
  await client.resetQueries({ predicate: ({ queryKey }) => queryKey[0] !== KEY[0] });
}

export function useSignIn() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (form: { email: string; password: string; code: string | null }) =>
      keepToken(call('POST /api/session', { body: form })),
    onSuccess: (state) => client.setQueryData(KEY, state),
  });
}

export function useSignOut() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () => call('DELETE /api/session'),
    onSuccess: async () => {
      const state = await call('GET /api/session');
      // Set, not cleared: whoever shows the session would not hear of a query that is gone. Then pages go, and what they read.
      keepSession(client, state);
      await forgetEverythingElse(client);
    },
  });
}
