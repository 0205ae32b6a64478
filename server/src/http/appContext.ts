import type { Logger } from 'pino';
import type { Request, Response } from 'express';
import type { DemoAccount, PushRule } from '@vivid-beacon/core';
import type { Pool } from '../db/database';
import type { Caller } from '../db/reader';
import type { FormTokens } from './formToken';
import type { Seal } from './seal';
import type { Workers } from '../workers/workers';

/** A token that is valid, with how its text is matched. */
export interface UsedToken {
  readonly id: string;
  readonly rule: PushRule;
  /** Writes there only; null = everywhere. */
  readonly plantId: string | null;
  /** Writes these only; null = all of its plants. */
  readonly metricIds: readonly string[] | null;
}

/** Looks up tokens. */
export interface KnownTokens {
  /** The token with this hash, if it is valid. */
  readonly find: (hash: Buffer) => Promise<UsedToken | undefined>;
  /** After a token was revoked or changed here. */
  readonly forget: () => void;
}

/** The screens that listen. */
export interface LiveConnections {
  readonly connect: (request: Request, response: Response, caller: Caller) => Promise<void>;
  /** Ends connections whose session is over. */
  readonly endOver: (pool: Pool) => Promise<void>;
}

/** What has to be kept between leaving for the provider and coming back. */
export interface Departure {
  readonly state: string;
  readonly nonce: string;
  readonly verifier: string;
}

/** Whom the provider vouches for. */
export interface ProvidedPerson {
  readonly issuer: string;
  readonly subject: string;
  /** null = none, or the provider has not verified it. */
  readonly email: string | null;
  /** Whether the provider asked for more than one factor. */
  readonly severalFactors: boolean;
}

/** Signs people in for us. */
export interface Provider {
  readonly name: string;
  /** @returns the address at the provider to go to. @throws {SignInRefused} */
  readonly leave: (returnTo: string) => Promise<{ readonly address: string; readonly departure: Departure }>;
  /**
   * @param address with which the provider sent the person back.
   * @throws {SignInRefused} `provider` when its answer does not fit, `refused` when it refused or the person gave up.
   */
  readonly comeBack: (address: URL, departure: Departure) => Promise<ProvidedPerson>;
}

/** What every endpoint works with. The clock is handed in, so that tests can set it. */
export interface AppContext {
  readonly pool: Pool;
  readonly live: LiveConnections;
  readonly log: Logger;
  readonly workers: Workers;
  readonly tokens: KnownTokens;
  readonly formTokens: FormTokens;
  readonly seal: Seal;
  /** With which people can sign in; null = none is set. */
  readonly provider: Provider | null;
  /** ms since the Unix epoch. */
  readonly now: () => number;
  /** Where people reach the app, without a slash at the end. */
  readonly publicUrl: () => string;
  /** Whether notices go to the stand-ins that ship with the product. */
  readonly standIns: { readonly email: boolean; readonly text: boolean };
  /** Accounts offered on the sign-in screen; empty unless this is a demo. */
  readonly demoAccounts: readonly DemoAccount[];
}
