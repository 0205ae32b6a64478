import { Readable } from 'node:stream';
import type { ReadableStream } from 'node:stream/web';
import * as client from 'openid-client';
import type { SignInProblem } from '@vivid-beacon/core';
import type { Provider } from '../http/appContext';

/* Signing in with a provider of the operator's choice: OpenID Connect Core 1.0, authorization code with PKCE (RFC 7636). */

/** Why somebody was not signed in. */
export class SignInRefused extends Error {
  constructor(
    readonly problem: SignInProblem,
    cause?: unknown,
  ) {
    super(`sign-in by the provider: ${problem}`, { cause });
  }
}

/** The provider, as the operator sets it. */
export interface ProviderSettings {
  /** "https://id.example.com" */
  readonly issuer: string;
  readonly clientId: string;
  readonly clientSecret: string;
  /** How people know it. */
  readonly name: string;
}

const TIMEOUT_S = 10;
const CLOCKS_DIFFER_S = 60;
const LARGEST_ANSWER = 500_000;
/** A provider that changes its keys or addresses is read again after this time. */
const KNOWN_FOR_MS = 3_600_000;
/** Authentication methods that make more than one factor: RFC 8176, section 2. */
const SEVERAL = ['mfa', 'otp', 'hwk'];

/** @param now ms; only for how long what is known of the provider holds. */
export function makeProvider(settings: ProviderSettings, now: () => number = Date.now): Provider {
  let known: { readonly configuration: Promise<client.Configuration>; readonly at: number } | undefined;
  const configuration = (): Promise<client.Configuration> => {
    if (known === undefined || now() - known.at > KNOWN_FOR_MS) {
      const read = discover(settings);
      known = { configuration: read, at: now() };
      // A provider that was away is asked again the next time.
      read.catch(() => (known = undefined));
    }
    return known.configuration;
  };
  return {
    name: settings.name,
    leave: (returnTo) =>
      answered(async () => {
        const departure = {
          state: client.randomState(),
          nonce: client.randomNonce(),
          verifier: client.randomPKCECodeVerifier(),
        };
        const address = client.buildAuthorizationUrl(await configuration(), {
          redirect_uri: returnTo,
          scope: 'openid email',
          state: departure.state,
          nonce: departure.nonce,
          code_challenge: await client.calculatePKCECodeChallenge(departure.verifier),
          code_challenge_method: 'S256',
        });
        return { address: address.href, departure };
      }),
    comeBack: (address, { state, nonce, verifier }) =>
      answered(async () => {
        const tokens = await client.authorizationCodeGrant(await configuration(), address, {
          expectedState: state,
          expectedNonce: nonce,
          pkceCodeVerifier: verifier,
          idTokenExpected: true,
        });
        const claims = tokens.claims()!;
        const { amr } = claims;
        return {
          issuer: claims.iss,
          subject: claims.sub,
          email: typeof claims.email === 'string' && claims.email_verified === true ? claims.email : null,
          severalFactors: Array.isArray(amr) && amr.some((each) => SEVERAL.includes(String(each))),
        };
      }),
  };
}

async function discover({ issuer, clientId, clientSecret }: ProviderSettings): Promise<client.Configuration> {
  const address = new URL(issuer);
  const found = await client.discovery(
    address,
    clientId,
    { client_secret: clientSecret, [client.clockTolerance]: CLOCKS_DIFFER_S },
    undefined,
    {
      timeout: TIMEOUT_S,
      [client.customFetch]: boundedFetch,
      // Only for a provider on this machine: everywhere else it has to be HTTPS.
      execute: isLoopback(address) ? [client.allowInsecureRequests] : [],
    },
  );
  // Signatures are checked although the token comes over TLS.
  client.enableNonRepudiationChecks(found);
  return found;
}

const isLoopback = ({ protocol, hostname }: URL): boolean =>
  protocol === 'http:' && ['127.0.0.1', '[::1]', 'localhost'].includes(hostname);

/** An answer of any length would be kept in memory whole. */
async function boundedFetch(address: string, options: client.CustomFetchOptions): Promise<Response> {
  const answer = await fetch(address, options as RequestInit);
  const parts: Uint8Array[] = [];
  let length = 0;
  for await (const part of answer.body ? Readable.fromWeb(answer.body as ReadableStream) : []) {
    const bytes = part as Uint8Array;
    length += bytes.length;
    if (length > LARGEST_ANSWER) throw new Error('The answer of the provider is too long.');
    parts.push(bytes);
  }
  const { status, statusText, headers } = answer;
  return new Response(length === 0 ? null : Buffer.concat(parts), { status, statusText, headers });
}

/** Whatever a provider answers, people are told in our words; the reason is kept for the log. */
async function answered<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    throw new SignInRefused(
      error instanceof client.AuthorizationResponseError ? 'refused' : 'provider',
      error,
    );
  }
}
