import type { Request } from 'express';
import { LRUCache } from 'lru-cache';
import type { Person } from '@vivid-beacon/core';
import { withTransaction } from '../db/database';
import { from, type Origin } from '../db/origin';
import type { AppContext } from '../http/appContext';
import { noteInTrail } from './sql';

type Who = Pick<Person, 'id' | 'name'>;

/** Where a request comes from, for what is changed before there is a session. */
export function signInOrigin(app: AppContext, request: Request, who: Who | null): Origin {
  return {
    person: who?.id ?? null,
    name: who?.name ?? null,
    address: request.ip ?? '',
    request: `${request.method} ${request.path}`,
    at: app.now(),
  };
}

/**
 * Notes a sign-in, a sign-out, a try with a wrong password, or one by the provider that was refused (`who` = the account that was
 * tried; null = none has this address).
 */
export function noteSignIn(
  app: AppContext,
  request: Request,
  action: 'signedIn' | 'signedOut' | 'signInFailed' | 'signInRefused',
  who: Who | null,
): Promise<void> {
  // Of a try only the account is certain, not who tried.
  const tried = action === 'signInFailed' || action === 'signInRefused';
  const origin = signInOrigin(app, request, tried ? null : who);
  return from(origin, () =>
    withTransaction(app.pool, (db) =>
      noteInTrail(db, { action, subject: 'session', subjectId: who?.id ?? null, name: who?.name ?? null }),
    ),
  );
}

const ONCE_IN_MS = 60_000;
/** A page that asks again and again for what it may not have is noted once a minute. */
const lately = new LRUCache<string, true>({ max: 10_000, ttl: ONCE_IN_MS });

/** Notes that somebody was refused for lack of rights. */
export async function noteRefusal(
  app: AppContext,
  request: Request,
  who: Who,
  endpoint: string,
): Promise<void> {
  const key = `${who.id} ${endpoint}`;
  if (lately.has(key)) return;
  lately.set(key, true);
  await from(signInOrigin(app, request, who), () =>
    withTransaction(app.pool, (db) =>
      noteInTrail(db, { action: 'refused', subject: 'request', subjectId: null, name: endpoint }),
    ),
  ).catch((error: unknown) => app.log.warn({ err: error }, 'a refusal could not be noted'));
}
