import type { Request, RequestHandler, Response } from 'express';
import type { SignedInPerson } from '@vivid-beacon/core';
import type {
  Address,
  AnswerOf,
  BodyOf,
  Contract,
  Contracts,
  ParamsOf,
  QueryOf,
} from '@vivid-beacon/core/src/api/contract';
import type { Reader } from '../db/reader';
import type { AppContext, UsedToken } from './appContext';

/** The input of a handler, already checked. */
export interface Call<Body = unknown, Query = unknown, Params = Readonly<Record<string, string>>> {
  readonly app: AppContext;
  /**
   * The database as far as this person has the role of the endpoint: the only way to assets, metrics and all that hangs on
   * them.
   */
  readonly db: Reader;
  readonly body: Body;
  readonly query: Query;
  /** Ids from the path, in the form /api/boards/:id. */
  readonly params: Params;
  /** The signed-in person; only for access 'anybody' or 'token' may there be none. */
  readonly person: SignedInPerson;
  /** Only for access 'token'. */
  readonly token: UsedToken;
  readonly request: Request;
  readonly response: Response;
}

/** What a handler returns that has written its answer itself. */
export const SENT = Symbol('sent');
export type Sent = typeof SENT;

type Returned<C extends Contract> =
  AnswerOf<C> extends undefined
    ? C['answer'] extends { readonly nothing: true }
      ? void
      : Sent
    : AnswerOf<C> | Sent;

type Handler<A extends string, C extends Contract> = (
  call: Call<BodyOf<C>, QueryOf<C>, ParamsOf<A>>,
) => Promise<Returned<C>>;

/** What runs before a handler, where that is not the same for all. */
export interface Guards {
  /** Before everything else, the log too. */
  readonly first?: RequestHandler;
  /** After the rights and before the body is read. */
  readonly before?: RequestHandler;
}

/** One endpoint: its contract and its handler. */
export interface Endpoint extends Contract, Guards {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  readonly handle: (call: Call) => Promise<unknown>;
}

/**
 * The endpoints of a subject: a handler for each of its contracts, whose types follow from them.
 *
 * @param guards by address, for those that need any.
 */
export function endpoints<C extends Contracts>(
  contracts: C,
  handlers: { readonly [A in keyof C & string]: Handler<A, C[A & Address]> },
  guards: { readonly [A in keyof C]?: Guards } = {},
): Endpoint[] {
  return (Object.keys(contracts) as (keyof C & Address)[]).map((address) => {
    const [method, path] = address.split(' ');
    return {
      ...contracts[address],
      ...guards[address],
      method: method.toLowerCase() as Endpoint['method'],
      path,
      handle: handlers[address] as unknown as Endpoint['handle'],
    };
  });
}
