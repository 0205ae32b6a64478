import { createHash } from 'node:crypto';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { BeaconError } from '@vivid-beacon/core';
import type { Pool } from '../db/database';

const PER_SECONDS = 900;
/** Failed sign-ins of one account, and from one address, within 15 minutes. */
const OF_ACCOUNT = 8;
const FROM_ADDRESS = 40;

/**
 * Counts sign-ins in PostgreSQL, so that all servers count together. A try is counted before its password is checked, in
 * one statement: of many tries at once no more than the limit are checked.
 */
export class SignInThrottle {
  private readonly account: RateLimiterPostgres;
  private readonly address: RateLimiterPostgres;

  constructor(pool: Pool) {
    const limiter = (keyPrefix: string, points: number): RateLimiterPostgres =>
      new RateLimiterPostgres({
        storeClient: pool,
        storeType: 'pool',
        tableName: 'throttle',
        tableCreated: true,
        clearExpiredByTimeout: false,
        keyPrefix,
        points,
        duration: PER_SECONDS,
      });
    this.account = limiter('account', OF_ACCOUNT);
    this.address = limiter('address', FROM_ADDRESS);
  }

  /**
   * Counts a try.
   *
   * @returns what to call when the password was right: then the try is not held against account and address.
   * @throws {BeaconError} TOO_MANY, with how long to wait, beyond 8 failures of the account or 40 from the address.
   */
  async admit(email: string, address: string): Promise<() => Promise<void>> {
    const [account, from] = [keyOf(email.toLowerCase()), keyOf(address)];
    await consume(this.address, from);
    await consume(this.account, account);
    return async () => {
      await this.account.delete(account);
      await this.address.reward(from);
    };
  }
}

/** Keys of one length, whatever was sent: an address may come from a header. */
function keyOf(text: string): string {
  return createHash('sha256').update(text).digest('hex');
}

async function consume(limiter: RateLimiterPostgres, key: string): Promise<void> {
  try {
    await limiter.consume(key);
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const seconds = Math.max(1, Math.ceil(error.msBeforeNext / 1000));
    throw new BeaconError(
      'TOO_MANY',
      `Too many failed sign-ins. Try again in ${Math.ceil(seconds / 60)} min.`,
      undefined,
      seconds,
    );
  }
}
