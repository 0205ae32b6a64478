import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { BeaconError } from '@vivid-beacon/core';
import type { Pool } from '../db/database';

const TRIES = 8;
const PER_SECONDS = 900;

/** Counts failed sign-ins per account and address in PostgreSQL, so that all servers count together. */
export class SignInThrottle {
  private readonly limiter: RateLimiterPostgres;

  constructor(pool: Pool) {
    this.limiter = new RateLimiterPostgres({
      storeClient: pool,
      storeType: 'pool',
      tableName: 'throttle',
      tableCreated: true,
      clearExpiredByTimeout: false,
      keyPrefix: 'signIn',
      points: TRIES,
      duration: PER_SECONDS,
    });
  }

  /** @throws {BeaconError} TOO_MANY after 8 failures within 15 minutes. */
  async check(key: string): Promise<void> {
    const state = await this.limiter.get(key);
    if (state && state.consumedPoints >= TRIES) throw tooMany(state);
  }

  async failed(key: string): Promise<void> {
    await this.limiter.consume(key).catch((error: unknown) => {
      if (!(error instanceof RateLimiterRes)) throw error;
    });
  }

  async succeeded(key: string): Promise<void> {
    await this.limiter.delete(key);
  }
}

function tooMany(state: RateLimiterRes): BeaconError {
  const minutes = Math.max(1, Math.ceil(state.msBeforeNext / 60_000));
  return new BeaconError('TOO_MANY', `Too many failed sign-ins. Try again in ${minutes} min.`);
}
