import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { Account, OwnAccount, Rights, Role } from '@vivid-beacon/core';
import { useChange } from './changes';
import { call } from './client';
import { usePages } from './pages';
import { forgetEverythingElse, keepFormToken, keepSession } from './session';

/** Which people are offered. */
export interface PeopleAsk {
  /** With this role at least, */
  readonly least?: Role;
  /** at the plant of this asset. */
  readonly assetId?: string;
}

/** People who share a plant with the signed-in person and have these words in their names, in pages. */
export const usePeoplePages = (ask: PeopleAsk, search: string) =>
  usePages(['people', 'pages', ask, search], (part) =>
    call('GET /api/people', { query: { ...ask, search, ...part } }),
  );

/** Accounts that have these words in name or address, in pages. */
export const useAccountPages = (search: string, state: Account['state'] | undefined) =>
  usePages(['accounts', 'pages', search, state], (part) =>
    call('GET /api/accounts', { query: { search, state, ...part } }),
  );

export const useAccount = (id: string) =>
  useQuery({ queryKey: ['accounts', id], queryFn: () => call('GET /api/accounts/:id', { params: { id } }) });

/** What is entered of a person. */
export interface AccountForm {
  readonly name: string;
  readonly email: string;
  readonly rights: Rights;
}

const CHANGED = ['accounts', 'people', 'trail', 'firstSteps'];

export const useInvite = () =>
  useChange(
    (body: AccountForm & { readonly holdsForH: number }) => call('POST /api/accounts', { body }),
    CHANGED,
  );

export const useChangeAccount = (id: string) =>
  useChange((body: AccountForm) => call('PUT /api/accounts/:id', { params: { id }, body }), CHANGED);

export const useDisableAccount = (id: string) =>
  useChange(
    (disabled: boolean) => call('PUT /api/accounts/:id/disabled', { params: { id }, body: { disabled } }),
    CHANGED,
  );

/** A new link to choose a password. */
export const useNewLink = (id: string) =>
  useChange(
    (holdsForH: number) => call('POST /api/accounts/:id/invitation', { params: { id }, body: { holdsForH } }),
    CHANGED,
  );

export const useSignOutEverywhere = (id: string) =>
  useChange(() => call('DELETE /api/accounts/:id/sessions', { params: { id } }), CHANGED);

/** Who a link is for. Asked once: an answer that went stale would hide the form while it is filled in. */
export const useInvitation = (token: string) =>
  useQuery({
    queryKey: ['invitation', token],
    queryFn: () => call('POST /api/invitations/read', { body: { token } }),
    retry: false,
    staleTime: Infinity,
  });

/** Chooses a password with a link, and signs in. */
export function useChoosePassword(token: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (password: string) => call('POST /api/invitations', { body: { token, password } }),
    // What somebody else read on this device before is gone.
    onSuccess: async (state) => {
      await forgetEverythingElse(client);
      keepSession(client, state);
    },
  });
}

export const useOwnAccount = () =>
  useQuery({ queryKey: ['account'], queryFn: () => call('GET /api/own-account') });

/** Changes the own name and start screen. */
export const useChangeOwn = () =>
  useChange(
    (body: Pick<OwnAccount, 'name' | 'startAt' | 'formats'>) => call('PUT /api/own-account', { body }),
    ['account', 'session', 'people'],
  );

export function useChangePassword() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (form: { readonly old: string; readonly new: string }) =>
      call('PUT /api/own-account/password', { body: form }),
    // The session goes on under a new id, and those of other devices have ended.
    onSuccess: (state) => keepSession(client, state),
    onSettled: () => client.invalidateQueries({ queryKey: ['account'] }),
  });
}

/** Begins to set up a second factor. */
export const useBeginSecondFactor = () =>
  useChange((password: string) => call('POST /api/own-account/second-factor', { body: { password } }), []);

/** Confirms it with its first code; the answer has the recovery codes. */
export function useConfirmSecondFactor() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (code: string) => call('PUT /api/own-account/second-factor', { body: { code } }),
    // The session goes on with another form token; the page keeps its codes until they are written down.
    onSuccess: ({ session }) => keepFormToken(session),
    onSettled: () => client.invalidateQueries({ queryKey: ['account'] }),
  });
}

export const useRemoveSecondFactor = () =>
  useChange(
    (password: string) => call('POST /api/own-account/second-factor/removal', { body: { password } }),
    ['account'],
  );

/** Requires a second factor of somebody, or no longer. */
export const useRequireSecondFactor = (id: string) =>
  useChange(
    (required: boolean) =>
      call('PUT /api/accounts/:id/second-factor', { params: { id }, body: { required } }),
    CHANGED,
  );

/** For somebody who has lost their device. */
export const useDropSecondFactor = (id: string) =>
  useChange(() => call('DELETE /api/accounts/:id/second-factor', { params: { id } }), CHANGED);

/** Forgets which account of the provider is theirs. */
export const useForgetProvider = (id: string) =>
  useChange(() => call('DELETE /api/accounts/:id/provider', { params: { id } }), CHANGED);

/** Signs another own device out; null = all others. */
export const useEndSession = () =>
  useChange(
    (id: string | null) =>
      id === null
        ? call('DELETE /api/own-account/sessions')
        : call('DELETE /api/own-account/sessions/:id', { params: { id } }),
    ['account'],
  );
