import { randomBytes } from 'node:crypto';
import type { AddressInfo } from 'node:net';
import express from 'express';
import { exportJWK, generateKeyPair, SignJWT, type JWTPayload } from 'jose';

/* A small OpenID provider for tests: discovery, keys, authorization code with PKCE, ID tokens. It can be told to answer nonsense. */

export const STAND_IN_CLIENT = { id: 'vivid-beacon-test', secret: 'a secret of the test' };

/** The account that is signed in at the stand-in. */
export interface StandInAccount {
  readonly sub: string;
  readonly email?: string;
  readonly email_verified?: unknown;
  readonly amr?: readonly string[];
}

/** What is answered otherwise than it should be; each is reset by `behave`. */
export interface Nonsense {
  /** Changes the claims of the ID token before it is signed. */
  claims?: (claims: JWTPayload) => JWTPayload;
  /** Signs with a key that is not published. */
  otherKey?: boolean;
  /** Not signed at all: "alg": "none". */
  unsigned?: boolean;
  /** The whole answer of the token endpoint. */
  token?: { readonly status: number; readonly body: string; readonly type?: string };
  /** The whole answer of discovery. */
  discovery?: { readonly status: number; readonly body: string };
  /** The state that is sent back. */
  state?: string;
  /** Refuses with this error instead of sending a code. */
  error?: string;
  /** The issuer that is named in the answer (RFC 9207). */
  iss?: string;
}

export interface ProviderStandIn {
  readonly issuer: string;
  account: StandInAccount;
  nonsense: Nonsense;
  /** Exchanges of codes so far, with what came. */
  readonly exchanges: readonly Readonly<Record<string, string>>[];
  readonly behave: () => void;
  readonly stop: () => Promise<void>;
}

const encoded = (value: object): string => Buffer.from(JSON.stringify(value)).toString('base64url');
const sha256 = async (text: string): Promise<string> =>
  Buffer.from(await crypto.subtle.digest('SHA-256', Buffer.from(text))).toString('base64url');

/** Starts the stand-in on a free port of this machine. */
export async function startProviderStandIn(): Promise<ProviderStandIn> {
  const { privateKey, publicKey } = await generateKeyPair('RS256');
  const other = await generateKeyPair('RS256');
  const jwk = { ...(await exportJWK(publicKey)), kid: 'one', alg: 'RS256', use: 'sig' };
  const codes = new Map<string, Record<string, string>>();
  const exchanges: Record<string, string>[] = [];
  const app = express();
  app.use(express.urlencoded({ extended: false }));
  const server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  const issuer = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  const standIn: ProviderStandIn = {
    issuer,
    account: { sub: 'nobody' },
    nonsense: {},
    exchanges,
    behave: () => {
      standIn.nonsense = {};
    },
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };

  app.get('/.well-known/openid-configuration', (_request, response) => {
    const { discovery } = standIn.nonsense;
    if (discovery) return void response.status(discovery.status).type('json').send(discovery.body);
    response.json({
      issuer,
      authorization_endpoint: `${issuer}/authorize`,
      token_endpoint: `${issuer}/token`,
      jwks_uri: `${issuer}/keys`,
      response_types_supported: ['code'],
      subject_types_supported: ['public'],
      id_token_signing_alg_values_supported: ['RS256'],
      code_challenge_methods_supported: ['S256'],
      authorization_response_iss_parameter_supported: true,
    });
  });

  app.get('/keys', (_request, response) => {
    response.json({ keys: [jwk] });
  });

  // Whoever comes is signed in already and agrees.
  app.get('/authorize', (request, response) => {
    const asked = request.query as Record<string, string>;
    const back = new URL(asked.redirect_uri);
    const { state = asked.state, error, iss = issuer } = standIn.nonsense;
    if (state !== undefined) back.searchParams.set('state', state);
    back.searchParams.set('iss', iss);
    if (error) {
      back.searchParams.set('error', error);
    } else {
      const code = randomBytes(16).toString('hex');
      codes.set(code, asked);
      back.searchParams.set('code', code);
    }
    response.redirect(302, back.href);
  });

  app.post('/token', async (request, response) => {
    const sent = request.body as Record<string, string>;
    exchanges.push(sent);
    const { token, claims = (each) => each, otherKey, unsigned } = standIn.nonsense;
    if (token)
      return void response
        .status(token.status)
        .type(token.type ?? 'json')
        .send(token.body);
    const asked = codes.get(sent.code);
    codes.delete(sent.code);
    const basic = `Basic ${Buffer.from(`${STAND_IN_CLIENT.id}:${encodeURIComponent(STAND_IN_CLIENT.secret).replace(/%20/g, '+')}`).toString('base64')}`;
    const isClient = request.headers.authorization === basic || sent.client_secret === STAND_IN_CLIENT.secret;
    const proves =
      !asked?.code_challenge || (await sha256(sent.code_verifier ?? '')) === asked.code_challenge;
    if (!asked || !isClient || !proves || sent.redirect_uri !== asked.redirect_uri) {
      return void response.status(400).json({ error: 'invalid_grant' });
    }
    const now = Math.floor(Date.now() / 1000);
    const payload = claims({
      iss: issuer,
      aud: STAND_IN_CLIENT.id,
      iat: now,
      exp: now + 300,
      ...(asked.nonce && { nonce: asked.nonce }),
      ...standIn.account,
    } as JWTPayload);
    const idToken = unsigned
      ? `${encoded({ alg: 'none' })}.${encoded(payload)}.`
      : await new SignJWT(payload)
          .setProtectedHeader({ alg: 'RS256', kid: 'one' })
          .sign(otherKey ? other.privateKey : privateKey);
    response.json({ access_token: 'opaque', token_type: 'Bearer', expires_in: 300, id_token: idToken });
  });
  return standIn;
}
