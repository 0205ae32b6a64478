import {
  rightsEverywhere,
  type Role,
  type SessionState,
  type SignedInPerson,
  USUAL_FORMATS,
} from '@vivid-beacon/core';

/** A person with a role at every plant. */
export function personOf(role: Role, name = 'Ines Varga', id = '1'): SignedInPerson {
  return { id, name, role, rights: rightsEverywhere(role) };
}

/** What the server answers where nobody is signed in. */
export const SIGNED_OUT: SessionState = {
  person: null,
  csrfToken: 'x',
  startAt: '/',
  secondFactorDue: false,
  formats: USUAL_FORMATS,
  provider: null,
  demoAccounts: [],
};

/** What the server answers where this person is signed in. */
export function signedIn(person: SignedInPerson | Role): SessionState {
  return { ...SIGNED_OUT, person: typeof person === 'string' ? personOf(person) : person };
}
