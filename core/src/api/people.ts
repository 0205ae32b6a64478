import * as yup from 'yup';
import { personSchema, signedInPersonSchema } from '../domain/person';
import { formatsSchema } from '../format/formats';
import { rightsSchema } from '../domain/rights';
import { ROLES } from '../domain/roles';
import { signInSchema } from '../schemas/forms';
import { pageFields, searchText } from '../schemas/lists';
import { idText } from '../schemas/parts';
import {
  accountSchema,
  invitationLifeSchema,
  invitationTokenSchema,
  newPasswordSchema,
  personNameSchema,
  startScreenSchema,
} from '../schemas/people';
import {
  amount,
  amountOrNull,
  list,
  oneOf,
  shape,
  text,
  textOrNull,
  truth,
  type TypeOf,
  named,
} from '../schemas/shape';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';

const demoAccount = shape({
  email: text(),
  password: text(),
  name: text(),
  role: oneOf(ROLES),
  /** Names of the plants at which they have the role; empty = everywhere. */
  plants: list(text()),
  duty: text(),
});
/** An account that demo mode offers on the sign-in screen. */
export type DemoAccount = TypeOf<typeof demoAccount>;

export const sessionSchema = named(
  'Session',
  shape({
    /** null = nobody is signed in. */
    person: signedInPersonSchema.nullable(),
    /** Where the person begins when they open the app. */
    startAt: text(),
    /** How the person writes numbers, dates and times; null = as the device has it. */
    formats: formatsSchema.nullable(),
    /** Whether the person has to set up a second factor before anything else. */
    secondFactorDue: truth(),
    /** Token that every change sends as x-form-token. */
    csrfToken: text(),
    /** What the provider is called that people can sign in with; null = there is none. */
    provider: textOrNull(),
    demoAccounts: list(demoAccount),
  }),
);
export type SessionState = TypeOf<typeof sessionSchema>;

/** Whether an account can be used: active, invited (no password chosen yet) or disabled. */
export const ACCOUNT_STATES = ['active', 'invited', 'disabled'] as const;

const secondFactorState = shape({ on: truth(), required: truth() });

const account = named(
  'Account',
  shape({
    id: text(),
    name: text(),
    email: text(),
    role: oneOf(ROLES),
    rights: rightsSchema,
    state: oneOf(ACCOUNT_STATES),
    /** When a session of theirs was last used; null = never, or not since the last sign-out. */
    seenAt: amountOrNull(),
    /** Whether they sign in with a second factor, and whether they have to. */
    secondFactor: secondFactorState,
    /** Until when their link to choose a password holds; null = there is none. */
    invitedUntil: amountOrNull(),
    /** Since when they sign in with the provider; null = they do not. */
    linkedAt: amountOrNull(),
  }),
);
/** An account as administrators see it. */
export type Account = TypeOf<typeof account>;

const invitationLink = shape({
  /** The address of the page, with the secret behind #, which no server and no log gets to see. */
  path: text(),
  /** Until when it holds, ms. */
  endsAt: amount(),
});
/** A link with which somebody chooses a password. Shown once. */
export type InvitationLink = TypeOf<typeof invitationLink>;

const ownSession = shape({
  id: text(),
  /** Signed in at, ms. */
  startedAt: amount(),
  /** Last used at, to five minutes, ms. */
  seenAt: amount(),
  /** Browser and system, as the browser tells them. */
  agent: text(),
  /** Network address. */
  address: text(),
  /** Whether it is the one that asks. */
  current: truth(),
});
/** A device that somebody is signed in on. */
export type OwnSession = TypeOf<typeof ownSession>;

const ownAccount = shape({
  name: text(),
  email: text(),
  rights: rightsSchema,
  /** Where they begin when they open the app. */
  startAt: text(),
  /** null = as the device has it. */
  formats: formatsSchema.nullable(),
  secondFactor: secondFactorState,
  /** Recovery codes that are not used yet. */
  recoveryLeft: amount(),
  sessions: list(ownSession),
});
/** A person's own account. */
export type OwnAccount = TypeOf<typeof ownAccount>;

export const TOO_MANY_PASSWORDS = 'TOO_MANY with Retry-After, after 8 wrong passwords within 15 minutes';
const LAST = 'WRONG_STATE when nobody would be left who can administer people';

export const peopleApi = contracts({
  'GET /api/session': {
    access: 'anybody',
    summary: 'The signed-in person, and the form token that every change must send.',
    answer: json(sessionSchema),
  },
  'POST /api/session': {
    access: 'anybody',
    summary: 'Signs in.',
    body: signInSchema,
    answer: json(sessionSchema),
    errors: {
      401: 'WRONG_PASSWORD; CODE_NEEDED when the password is right and the account has a second factor',
      429: 'TOO_MANY with Retry-After, after 8 failures of an account or 40 from an address within 15 minutes',
    },
  },
  'DELETE /api/session': { access: 'anybody', summary: 'Signs out.', answer: nothing },
  'GET /api/people': {
    access: 'viewer',
    summary: 'People by name who share a plant with the caller: to hand flags to, to be told.',
    query: yup
      .object({
        search: searchText(),
        /** With this role at least, */
        least: yup.string().oneOf(ROLES).default('viewer'),
        /** at the plant of this asset. */
        assetId: idText().optional(),
        ...pageFields(),
      })
      .noUnknown(),
    answer: json(pageOf(personSchema)),
    errors: { 404: 'NOT_FOUND for a missing asset' },
  },
});

export const accountsApi = contracts({
  'GET /api/accounts': {
    access: 'administrator',
    everywhere: true,
    summary: 'Accounts by name.',
    query: yup
      .object({ search: searchText(), state: yup.string().oneOf(ACCOUNT_STATES).optional(), ...pageFields() })
      .noUnknown(),
    answer: json(pageOf(account)),
  },
  'GET /api/accounts/:id': {
    access: 'administrator',
    everywhere: true,
    summary: 'One account.',
    answer: json(account),
  },
  'POST /api/accounts': {
    access: 'administrator',
    everywhere: true,
    summary: 'Invites somebody: adds an account without a password, and a link to choose one.',
    body: accountSchema.concat(invitationLifeSchema),
    answer: json(shape({ id: text(), link: invitationLink })),
    errors: { 422: 'BAD_INPUT when there is an account with this address, or a plant is missing' },
  },
  'PUT /api/accounts/:id': {
    access: 'administrator',
    everywhere: true,
    summary: 'Changes name, address and rights. Changed rights hold at once, on open pages too.',
    body: accountSchema,
    answer: json(account),
    errors: { 409: LAST, 422: 'BAD_INPUT when another account has this address, or a plant is missing' },
  },
  'PUT /api/accounts/:id/disabled': {
    access: 'administrator',
    everywhere: true,
    summary: 'Disables an account, which signs it out everywhere, or enables it again.',
    body: yup.object({ disabled: yup.boolean().required() }).noUnknown(),
    answer: json(account),
    errors: { 409: LAST },
  },
  'POST /api/accounts/:id/invitation': {
    access: 'administrator',
    everywhere: true,
    summary:
      'Makes a new link to choose a password, for somebody invited or who has forgotten theirs. Earlier links stop working; a password that is set still works until then.',
    body: invitationLifeSchema,
    answer: json(invitationLink),
    errors: { 409: 'WRONG_STATE for a disabled account' },
  },
  'DELETE /api/accounts/:id/sessions': {
    access: 'administrator',
    everywhere: true,
    summary: 'Signs somebody out everywhere.',
    answer: nothing,
  },
});

const noSuchLink = { 404: 'NOT_FOUND for a link that was used, is past its end, or was replaced' };

export const invitationsApi = contracts({
  'POST /api/invitations/read': {
    access: 'anybody',
    summary: 'Who a link to choose a password is for.',
    body: yup.object({ token: invitationTokenSchema }).noUnknown(),
    answer: json(shape({ name: text(), email: text(), endsAt: amount() })),
    errors: noSuchLink,
  },
  'POST /api/invitations': {
    access: 'anybody',
    summary: 'Sets the password with a link, once, and signs in. Other sessions of the account end.',
    body: yup.object({ token: invitationTokenSchema, password: newPasswordSchema }).noUnknown(),
    answer: json(sessionSchema),
    errors: { ...noSuchLink, 422: 'BAD_INPUT for a password that is easy to guess' },
  },
});

export const ownAccountApi = contracts({
  'GET /api/own-account': {
    access: 'viewer',
    summary: 'Own account and where it is signed in.',
    answer: json(ownAccount),
  },
  'PUT /api/own-account': {
    access: 'viewer',
    summary: 'Changes the own name, and where one begins.',
    body: yup
      .object({
        name: personNameSchema,
        startAt: startScreenSchema,
        formats: formatsSchema.nullable().defined(),
      })
      .noUnknown(),
    answer: nothing,
  },
  'PUT /api/own-account/password': {
    access: 'viewer',
    summary: 'Changes the own password. All other sessions end, and this one gets a new id.',
    body: yup
      .object({
        old: yup.string().min(1).max(200).required('Give your present password'),
        new: newPasswordSchema,
      })
      .noUnknown(),
    answer: json(sessionSchema),
    errors: {
      401: 'WRONG_PASSWORD when the present one is wrong',
      422: 'BAD_INPUT for a password that is easy to guess',
      429: TOO_MANY_PASSWORDS,
    },
  },
  'DELETE /api/own-account/sessions/:id': {
    access: 'viewer',
    summary: 'Signs another of the own devices out.',
    names: { id: /^[0-9a-f]{64}$/ },
    answer: nothing,
    errors: { 404: 'NOT_FOUND for a session that has ended' },
  },
  'DELETE /api/own-account/sessions': {
    access: 'viewer',
    summary: 'Signs all other own devices out.',
    answer: nothing,
  },
});
