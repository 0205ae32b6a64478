import express, { type RequestHandler, type Router } from 'express';
import { allows, BeaconError, type Person } from '@vivid-beacon/core';
import { callerOf, NOBODY, readAs, SERVER_CALLER, type Caller } from './db/reader';
import { personOfSession } from './people/signedIn';
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
    router[each.method](each.path, guard(each.access, app), ...before, reader, answer(each, app));
  }
}

function guard(access: Access, app: AppContext): RequestHandler {
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
      if (!allows(person.role, access)) {
        throw new BeaconError('NOT_ALLOWED', `This needs the role ${access}; yours is ${person.role}.`);
      }
    }
    next();
  };
}

/** What devices push is read by the server; who is not signed in sees nothing. */
function whoAsks(access: Access, person: Person | null): Caller {
  if (access === 'token') return SERVER_CALLER;
  return person ? callerOf(person) : NOBODY;
}

function answer(each: Endpoint, app: AppContext): RequestHandler {
  return async (request, response) => {
    for (const [name, value] of Object.entries(request.params)) {
      if (!(each.names?.[name] ?? ID).test(String(value))) {
        throw new BeaconError('NOT_FOUND', `There is nothing under "${String(value).slice(0, 40)}".`, name);
      }
    }
    const { person } = response.locals as { person: Person | null };
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
    const result = await each.handle(call);
    if (result === SENT) return;
    if (result === undefined) response.status(204).end();
    else response.json(result);
  };
}
