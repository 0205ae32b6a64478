import * as yup from 'yup';
import { ownAddressSchema } from '../schemas/people';
import { list, shape, text } from '../schemas/shape';
import { content, contracts, json, nothing } from './contract';
import { sessionSchema, TOO_MANY_PASSWORDS } from './people';

/* Ways to sign in besides a password: a second factor, and a provider. */

const password = () => yup.string().min(1).max(200).required('Give your present password');
const PASSWORD_ERRORS = { 401: 'WRONG_PASSWORD', 429: TOO_MANY_PASSWORDS } as const;

export const secondFactorApi = contracts({
  'POST /api/own-account/second-factor': {
    access: 'viewer',
    summary: 'Begins to set up a second factor: a new secret, which holds once a code of it has come.',
    body: yup.object({ password: password() }).noUnknown(),
    answer: json(
      shape({ secret: text(), uri: text() }),
      'secret: 160 bits in Base32; uri: otpauth address for a QR code; codes after RFC 6238, SHA-1, 6 digits, 30 s',
    ),
    errors: PASSWORD_ERRORS,
  },
  'PUT /api/own-account/second-factor': {
    access: 'viewer',
    summary:
      'Confirms the second factor with its first code. Other sessions end. Only this answer has the recovery codes.',
    body: yup
      .object({ code: yup.string().trim().max(20).required('Give the code of six digits') })
      .noUnknown(),
    answer: json(shape({ recoveryCodes: list(text()), session: sessionSchema })),
    errors: { 401: 'WRONG_PASSWORD for a wrong code', 409: 'WRONG_STATE when none was begun' },
  },
  'POST /api/own-account/second-factor/removal': {
    access: 'viewer',
    summary: 'Removes the own second factor.',
    body: yup.object({ password: password() }).noUnknown(),
    answer: nothing,
    errors: { ...PASSWORD_ERRORS, 409: 'WRONG_STATE when the account needs one' },
  },
  'PUT /api/accounts/:id/second-factor': {
    access: 'administrator',
    everywhere: true,
    summary:
      'Requires a second factor of somebody, or no longer. Until it is set up they can do nothing else.',
    body: yup.object({ required: yup.boolean().required() }).noUnknown(),
    answer: nothing,
  },
  'DELETE /api/accounts/:id/second-factor': {
    access: 'administrator',
    everywhere: true,
    summary:
      'Removes the second factor of somebody who has lost their device, and signs them out everywhere.',
    answer: nothing,
  },
});

const HTML = 'text/html';

/** Signing in with a provider (OpenID Connect). A browser goes there and back; both answers send it on. */
export const providerApi = contracts({
  'GET /api/sign-in/start': {
    access: 'anybody',
    summary: 'Sends the browser to the provider that people can sign in with (303).',
    query: yup.object({ to: ownAddressSchema.default('/') }).noUnknown(),
    answer: content(HTML, 'a redirect to the provider, or to the sign-in page with why not'),
    errors: { 404: 'NOT_FOUND where no provider is set' },
  },
  'GET /api/sign-in/return': {
    access: 'anybody',
    summary:
      'Where the provider sends the browser back to, with a code or an error: signs in and sends it on (303).',
    answer: content(HTML, 'a redirect to where the person wanted to go, or to the sign-in page with why not'),
    errors: { 404: 'NOT_FOUND where no provider is set' },
  },
  'DELETE /api/accounts/:id/provider': {
    access: 'administrator',
    everywhere: true,
    summary:
      'Forgets which account of the provider belongs to somebody: the next one with their address does.',
    answer: nothing,
    errors: { 404: 'NOT_FOUND when they do not sign in with the provider' },
  },
});
