import type { Request } from 'express';
import type { Person } from '@vivid-beacon/core';
import type { AppContext } from '../http/appContext';
import { findPerson } from './sql';

/** The person of this request's session, read afresh so that a changed role holds at once. */
export async function personOfSession(app: AppContext, request: Request): Promise<Person | null> {
  const id = request.session.personId;
  return id ? ((await findPerson(app.pool, id)) ?? null) : null;
}
