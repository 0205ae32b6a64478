import express, { type Request, type RequestHandler, type Router } from 'express';
import { allows, BeaconError, plantsWith, type Role, type SignedInPerson } from '@vivid-beacon/core';
import { from, type Origin } from './db/origin';
import { callerOf, NOBODY, readAs, SERVER_CALLER, type Caller } from './db/reader';
import { personOfSession } from './people/session';
import { noteRefusal } from './trail/notes';
import { tokenOfRequest } from './tokens/tokenOfRequest';
import type { AppContext } from './http/appContext';
import type { Access } from '@vivid-beacon/core/src/api/contract';
import { SENT, type Call, type Endpoint } from './http/endpoint';
import { checked } from './http/errors';

const DEFAULT_LIMIT = 1_000_000;
const ID = /^[1-9]\d{0,17}$/;

/** Makes routes of endpoints: rights first, then the form token, then input, then the handler. */
export function mountEndpoints(router: Router, endpoints: readonly Endpoint[], app: AppContext): void {
  for (const each of endpoints) {
    const limit = each.limit ?? DEFAULT_LIMIT;
    const reader = each.content ? express.raw({ limit, type: [...each.content] }) : express.json({ limit });
    const before = each.before ? [each.before] : [];
    router[each.method](each.path, guard(each, app), ...before, reader, answer(each, app));
  }
}

/** Refuses, and notes in the trail that it did. */
async function refuse(
  app: AppContext,
  request: Request,
  person: SignedInPerson,
  { method, path }: Endpoint,
  why: string,
): Promise<never> {
  await noteRefusal(app, request, person, `${method.toUpperCase()} ${path}`);
  throw new BeaconError('NOT_ALLOWED', why);
}

/** What somebody reaches who has to set up a second factor first. */
const OWN_ACCOUNT = '/api/own-account';

function guard(endpoint: Endpoint, app: AppContext): RequestHandler {
  const { access, everywhere } = endpoint;
  return async (request, response, next) => {
    if (access === 'token') {
      response.locals.token = await tokenOfRequest(app, request);
      next();
      return;
    }
    if (request.method !== 'GET') app.formTokens.check(request);
    const person = await personOfSession(app, request);
    response.locals.person = person;
    if (access !== 'anybody') {
      if (!person) throw new BeaconError('NOT_SIGNED_IN', 'Sign in first.');
      if (person.secondFactorDue && !endpoint.path.startsWith(OWN_ACCOUNT)) {
        throw new BeaconError('SECOND_FACTOR', 'Set up your second factor first, under Your account.');
      }
      if (!allows(person.role, access)) {
        const why = `This needs the role ${access}; yours is ${person.role}.`;
        return refuse(app, request, person, endpoint, why);
      }
      if (everywhere && plantsWith(person.rights, access) !== null) {
        const why = `This needs the role ${access} at every plant; you have it at some.`;
        return refuse(app, request, person, endpoint, why);
      }
    }
    next();
  };
}

/**
 * What devices push is read by the server; who is not signed in sees nothing. A person reaches the plants at which they have
 * the role of the endpoint: this is the one place where rights by site are decided.
 */
function whoAsks(access: Access, person: SignedInPerson | null): Caller {
  if (access === 'token') return SERVER_CALLER;
  return person ? callerOf(person, access === 'anybody' ? 'viewer' : access) : NOBODY;
}

/** Somebody who sees more than they may change is told that this can be the reason why nothing was found. */
function explained(error: unknown, access: Access, person: SignedInPerson | null): unknown {
  if (!(error instanceof BeaconError) || error.code !== 'NOT_FOUND' || !person || !isRole(access))
    return error;
  const [seen, reached] = [plantsWith(person.rights, 'viewer'), plantsWith(person.rights, access)];
  if (reached === null || reached.length === seen?.length) return error;
  return new BeaconError(
    'NOT_FOUND',
    `${error.message} Or it is at a plant at which you have not the role ${access}.`,
    error.path,
  );
}

const isRole = (access: Access): access is Role => access !== 'anybody' && access !== 'token';

/** Where a change comes from. */
function originOf({ method, path }: Endpoint, { app, person, request }: Call): Origin {
  return {
    person: person.id,
    name: person.name,
    address: request.ip ?? '',
    request: `${method.toUpperCase()} ${path}`,
    at: app.now(),
  };
}

function answer(each: Endpoint, app: AppContext): RequestHandler {
  return async (request, response) => {
    for (const [name, value] of Object.entries(request.params)) {
      if (!(each.names?.[name] ?? ID).test(String(value))) {
        throw new BeaconError('NOT_FOUND', `There is nothing under "${String(value).slice(0, 40)}".`, name);
      }
    }
    const { person } = response.locals as { person: SignedInPerson | null };
    const call: Call = {
      app,
      db: readAs(app.pool, whoAsks(each.access, person)),
      body: each.body ? await checked(each.body, request.body ?? {}) : undefined,
      query: each.query ? await checked(each.query, request.query) : undefined,
      params: request.params as Record<string, string>,
      person: person!,
      token: response.locals.token,
      request,
      response,
    };
    const handle = (): Promise<unknown> => each.handle(call);
    const answered = person && each.method !== 'get' ? from(originOf(each, call), handle) : handle();
    const result = await answered.catch(async (error: unknown) => {
      if (person && error instanceof BeaconError && error.code === 'NOT_ALLOWED') {
        await noteRefusal(app, request, person, `${each.method.toUpperCase()} ${each.path}`);
      }
      throw explained(error, each.access, person);
    });
    if (result === SENT) return;
    if (result === undefined) response.status(204).end();
    else response.json(result);
  };
}
