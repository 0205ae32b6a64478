import { LRUCache } from 'lru-cache';
import type { Queryable } from '../db/database';
import type { KnownTokens, UsedToken } from '../http/appContext';
import { useToken } from './sql';

/** A token that was revoked on another server is taken for so long. */
const KEPT_MS = 2000;
const MOST = 1000;

/** Tokens looked up a moment ago, wrong ones too, so that a flood of pushes does not ask the database for each. */
export class TokenCache implements KnownTokens {
  private readonly found = new LRUCache<string, Promise<UsedToken | undefined>>({ max: MOST, ttl: KEPT_MS });

  constructor(
    private readonly db: Queryable,
    private readonly now: () => number,
  ) {}

  /** The token with this hash, if it is valid. */
  find(hash: Buffer): Promise<UsedToken | undefined> {
    const key = hash.toString('hex');
    const known = this.found.get(key);
    if (known) return known;
    const asked = useToken(this.db, hash, this.now());
    this.found.set(key, asked);
    // A database that was away is asked again.
    asked.catch(() => this.found.delete(key));
    return asked;
  }

  /** After a token was revoked or changed here. */
  forget(): void {
    this.found.clear();
  }
}
