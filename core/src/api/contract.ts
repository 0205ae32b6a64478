import type * as yup from 'yup';
import type { ISchema } from 'yup';
import type { Role } from '../domain/roles';
import type { TypeOf } from '../schemas/shape';

/* What server and app agree on, one subject a file. Routes, checks, the OpenAPI description and the app's calls are made of it. */

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';
/** "GET /api/boards/:id". */
export type Address = `${Method} /api/${string}`;

/** Who may call: anybody, anybody with a push token, or people of at least this role. */
export type Access = 'anybody' | 'token' | Role;

/** What comes back when all went well. */
export type Answer<Schema extends yup.ISchema<unknown> = yup.ISchema<unknown>> =
  /** 200 with JSON; `bytes` = the same in bytes for who accepts application/octet-stream: how they are laid out. */
  | { readonly json: Schema; readonly words: string; readonly bytes?: string }
  /** 204. */
  | { readonly nothing: true }
  /** 200 with something else than JSON. */
  | { readonly content: readonly string[]; readonly words: string };

/** Statuses of what may go wrong with an endpoint itself; those of sign-in, rights and input follow from the rest. */
export type OwnErrorStatus = 401 | 403 | 404 | 408 | 409 | 413 | 422 | 429 | 503;

/** One way into the server. */
export interface Contract {
  readonly access: Access;
  /** One sentence: what it does. */
  readonly summary: string;
  readonly query?: yup.ISchema<unknown>;
  /** A JSON body. */
  readonly body?: yup.ISchema<unknown>;
  /** Content types of a body that is handed over as bytes. */
  readonly content?: readonly string[];
  /** Largest body, in bytes; default 1 MB. */
  readonly limit?: number;
  readonly answer: Answer;
  readonly errors?: Readonly<Partial<Record<OwnErrorStatus, string>>>;
}

/** The endpoints of a subject by their addresses. */
export type Contracts = Readonly<Record<Address, Contract>>;

/** Keeps the types of addresses and schemas. */
export function contracts<const C extends Contracts>(all: C): C {
  return all;
}

/** @param words what the members mean, with their units, where their names do not say it. */
export const json = <Schema extends yup.ISchema<unknown>>(
  schema: Schema,
  words = '',
): { readonly json: Schema; readonly words: string } => ({ json: schema, words });
export const nothing = { nothing: true } as const;
export const content = (types: string | readonly string[], words: string) => ({
  content: typeof types === 'string' ? [types] : types,
  words,
});

/** The names of the ids in an address. */
type IdsOf<A extends string> = A extends `${string}:${infer Id}/${infer Rest}`
  ? Id | IdsOf<Rest>
  : A extends `${string}:${infer Id}`
    ? Id
    : never;
export type ParamsOf<A extends string> = { readonly [Id in IdsOf<A>]: string };

type Checked<S> = S extends yup.ISchema<unknown> ? TypeOf<S> : undefined;
export type BodyOf<C extends Contract> = Checked<C['body']>;
export type QueryOf<C extends Contract> = Checked<C['query']>;
export type AnswerOf<C extends Contract> = C['answer'] extends { readonly json: infer S }
  ? Checked<S>
  : undefined;

/** Members that may be left out of what is sent: they have a value of their own then. */
type LeftOut<Defaults> = {
  [K in keyof Defaults]: Defaults[K] extends string | number | boolean | null | readonly unknown[]
    ? K
    : never;
}[keyof Defaults];
type WithLeftOut<T, K> = TypeOf<ISchema<Omit<T, K & keyof T> & Partial<Pick<T, K & keyof T>>>>;
/** What is sent, before what was left out is filled in. */
export type SentFor<S> = S extends { readonly __outputType: infer T; readonly __default: infer Defaults }
  ? WithLeftOut<T, LeftOut<Defaults>>
  : undefined;

type Part<Name extends string, Value> = Value extends undefined
  ? object
  : object extends Value
    ? { readonly [K in Name]?: Value }
    : { readonly [K in Name]: Value };
type Asks<C, Name extends 'query' | 'body'> = C extends { readonly [K in Name]: infer S }
  ? Part<Name, SentFor<S>>
  : object;
type Params<A extends string> = IdsOf<A> extends never ? object : { readonly params: ParamsOf<A> };

/** Everything that a call of an endpoint needs: ids of its address, query, body. */
export type CallOf<A extends string, C> = Params<A> & Asks<C, 'query'> & Asks<C, 'body'>;
