import type { Request, RequestHandler, Response } from 'express';
import * as yup from 'yup';
import type { Person, Role } from '@vivid-beacon/core';
import type { UsedToken } from '../tokens/sql';
import type { Reader } from '../db/reader';
import type { AppContext } from './appContext';

/** Who may call: anybody, anybody with a push token, or people of at least this role. */
export type Access = 'anybody' | 'token' | Role;

/** What a handler gets: everything is checked before it is called. */
export interface Call<Body, Query> {
  readonly app: AppContext;
  /** The database as this person may see it: the only way to assets, metrics and all that hangs on them. */
  readonly db: Reader;
  readonly body: Body;
  readonly query: Query;
  /** Ids from the path, in the form /api/boards/:id. */
  readonly params: Readonly<Record<string, string>>;
  /** The signed-in person; only for access 'anybody' or 'token' may there be none. */
  readonly person: Person;
  /** Only for access 'token'. */
  readonly token: UsedToken;
  readonly request: Request;
  readonly response: Response;
}

/** One way into the server. The OpenAPI description is made from these, and so are the routes. */
export interface Endpoint<Body = unknown, Query = unknown> {
  readonly method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  readonly path: string;
  readonly access: Access;
  /** One sentence: what it does. */
  readonly summary: string;
  /** What comes back: shape and units, and the errors a caller should expect. */
  readonly answer: string;
  readonly body?: yup.Schema<Body>;
  readonly query?: yup.Schema<Query>;
  /** Largest body, in bytes; default 1 MB. */
  readonly limit?: number;
  /** Content types whose body is handed over as text, or as bytes; JSON is read unless it is among them. */
  readonly text?: readonly string[];
  readonly bytes?: readonly string[];
  /** Runs before everything else, the log too. */
  readonly first?: RequestHandler;
  /** Runs after the rights and before the body is read. */
  readonly before?: RequestHandler;
  /** Returns what is sent as JSON; undefined = 204, or the handler has answered itself. */
  readonly handle: (call: Call<Body, Query>) => Promise<unknown>;
}

/** Lets the types of body and query follow from their schemas. */
export function endpoint<Body = undefined, Query = undefined>(definition: Endpoint<Body, Query>): Endpoint {
  return definition as unknown as Endpoint;
}
