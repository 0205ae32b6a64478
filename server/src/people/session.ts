import { promisify } from 'node:util';
import type { Request } from 'express';
import type { SessionState } from '@vivid-beacon/core';
import type { Call } from '../http/endpoint';
import type { AppContext } from '../http/appContext';
import { findPerson, type FoundPerson } from './sql';

/** A session ends so long after signing in, however much it is used. */
const LONGEST_MS = 12 * 3_600_000;
/** Use is noted so often. */
const NOTED_EVERY_MS = 5 * 60_000;
const LONGEST_AGENT = 300;

/** The person of this request's session, read afresh so that a changed role holds at once. */
export async function personOfSession(app: AppContext, request: Request): Promise<FoundPerson | null> {
  const { session } = request;
  if (!session.personId) return null;
  const now = Date.now();
  const person = (await findPerson(app.pool, session.personId)) ?? null;
  if (person === null || now - (session.startedAt ?? 0) > LONGEST_MS) {
    await promisify(session.destroy.bind(session))();
    return null;
  }
  if (now - (session.seenAt ?? 0) > NOTED_EVERY_MS) session.seenAt = now;
  return person;
}

/** Begins a session with a new id, so that one that was planted or seen before is worth nothing. */
export async function beginSession({ app, request }: Pick<Call, 'app' | 'request'>, personId: string) {
  const person = (await findPerson(app.pool, personId))!;
  const { session: before } = request;
  // One that goes on, after the password or the rights were changed, does not get more time by it.
  const startedAt = before.personId === personId ? before.startedAt : Date.now();
  await promisify(before.regenerate.bind(before))();
  Object.assign(request.session, {
    personId,
    startedAt,
    seenAt: Date.now(),
    rightsAt: person.rightsChangedAt,
    agent: (request.headers['user-agent'] ?? '').slice(0, LONGEST_AGENT),
    address: request.ip ?? '',
  });
  return person;
}

/** What a page is told of its session. */
export function sessionState(
  { app, request, response }: Pick<Call, 'app' | 'request' | 'response'>,
  person: FoundPerson | null,
): SessionState {
  return {
    person: person && { id: person.id, name: person.name, role: person.role, rights: person.rights },
    startAt: person?.startAt ?? '/',
    formats: person?.formats ?? null,
    secondFactorDue: person?.secondFactorDue ?? false,
    csrfToken: app.formTokens.issue(request, response),
    provider: app.provider?.name ?? null,
    demoAccounts: person ? [] : app.demoAccounts,
  };
}
