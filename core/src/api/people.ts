import { personSchema } from '../domain/person';
import { ROLES } from '../domain/roles';
import { signInSchema } from '../schemas/forms';
import { list, oneOf, shape, text, type TypeOf, named } from '../schemas/shape';
import { contracts, json, nothing } from './contract';

const demoAccount = shape({
  email: text(),
  password: text(),
  name: text(),
  role: oneOf(ROLES),
  duty: text(),
});
/** An account that demo mode offers on the sign-in screen. */
export type DemoAccount = TypeOf<typeof demoAccount>;

const sessionState = named(
  'Session',
  shape({
    /** null = nobody is signed in. */
    person: personSchema.nullable(),
    /** Token that every change sends as x-form-token. */
    csrfToken: text(),
    demoAccounts: list(demoAccount),
  }),
);
export type SessionState = TypeOf<typeof sessionState>;

export const peopleApi = contracts({
  'GET /api/session': {
    access: 'anybody',
    summary: 'The signed-in person, and the form token that every change must send.',
    answer: json(sessionState),
  },
  'POST /api/session': {
    access: 'anybody',
    summary: 'Signs in.',
    body: signInSchema,
    answer: json(sessionState),
    errors: {
      401: 'WRONG_PASSWORD',
      429: 'TOO_MANY with Retry-After, after 8 failures of an account or 40 from an address within 15 minutes',
    },
  },
  'DELETE /api/session': { access: 'anybody', summary: 'Signs out.', answer: nothing },
  'GET /api/people': {
    access: 'viewer',
    summary: 'People to hand flags to.',
    answer: json(list(personSchema)),
  },
});
