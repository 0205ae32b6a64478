import type { Logger } from 'pino';
import type { DemoAccount } from '@vivid-beacon/core';
import type { Pool } from '../db/database';
import type { LiveHub } from '../live/liveHub';
import type { FormTokens } from './formToken';
import type { TokenCache } from '../tokens/tokenCache';
import type { Workers } from '../workers/workers';

/** What every endpoint works with. The clock is handed in, so that tests can set it. */
export interface AppContext {
  readonly pool: Pool;
  readonly live: LiveHub;
  readonly log: Logger;
  readonly workers: Workers;
  readonly tokens: TokenCache;
  readonly formTokens: FormTokens;
  /** ms since the Unix epoch. */
  readonly now: () => number;
  /** Where people reach the app, without a slash at the end. */
  readonly publicUrl: () => string;
  /** Whether notices go to the stand-ins that ship with the product. */
  readonly standIns: { readonly email: boolean; readonly text: boolean };
  /** Accounts offered on the sign-in screen; empty unless this is a demo. */
  readonly demoAccounts: readonly DemoAccount[];
}
