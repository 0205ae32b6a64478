import type * as yup from 'yup';
import type { ISchema } from 'yup';
import type { Role } from '../domain/roles';
import type { TypeOf } from '../schemas/shape';

/*
 * The contract between server and app, one file per subject. Routes, checks, the OpenAPI description and the
 * app's calls are derived from it.
 */

export type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';
/** "GET /api/boards/:id". */
export type Address = `${Method} /api/${string}`;

/** Who may call: anybody, holders of a push token, or people with at least this role. */
export type Access = 'anybody' | 'token' | Role;

/** The successful answer. */
export type Answer<Schema extends yup.ISchema<unknown> = yup.ISchema<unknown>> =
  /** 200 with JSON; `bytes` = layout of the binary form for clients that accept application/octet-stream. */
  | { readonly json: Schema; readonly words: string; readonly bytes?: string }
  /** 204. */
  | { readonly nothing: true }
  /** 200 with another content type. */
  | { readonly content: readonly string[]; readonly words: string };

/** Error statuses specific to an endpoint; those for sign-in, rights and input are derived. */
export type OwnErrorStatus = 401 | 403 | 404 | 408 | 409 | 413 | 422 | 429 | 503;

/** One endpoint. */
export interface Contract {
  readonly access: Access;
  /**
   * Whether the role is needed at every plant, because what it changes belongs to none; default: at any plant, and the caller
   * reaches only the plants at which they have it.
   */
  readonly everywhere?: true;
  /** One sentence that says what it does. */
  readonly summary: string;
  /** Patterns of path parameters that are not ids, by name. */
  readonly names?: Readonly<Record<string, RegExp>>;
  readonly query?: yup.ISchema<unknown>;
  /** A JSON body. */
  readonly body?: yup.ISchema<unknown>;
  /** Content types of a binary body. */
  readonly content?: readonly string[];
  /** Largest body, in bytes; default 1 MB. */
  readonly limit?: number;
  readonly answer: Answer;
  readonly errors?: Readonly<Partial<Record<OwnErrorStatus, string>>>;
}

/** The endpoints of a subject by address. */
export type Contracts = Readonly<Record<Address, Contract>>;

/** Keeps the types of addresses and schemas. */
export function contracts<const C extends Contracts>(all: C): C {
  return all;
}

/** @param words meaning and units of members whose names do not say it. */
export const json = <Schema extends yup.ISchema<unknown>>(
  schema: Schema,
  words = '',
): { readonly json: Schema; readonly words: string } => ({ json: schema, words });
export const nothing = { nothing: true } as const;
export const content = (types: string | readonly string[], words: string) => ({
  content: typeof types === 'string' ? [types] : types,
  words,
});

/** The names of the path parameters. */
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

/** Optional members, which have defaults. */
type LeftOut<Defaults> = {
  [K in keyof Defaults]: Defaults[K] extends string | number | boolean | null | readonly unknown[]
    ? K
    : never;
}[keyof Defaults];
type WithLeftOut<T, K> = TypeOf<ISchema<Omit<T, K & keyof T> & Partial<Pick<T, K & keyof T>>>>;
/** The input before defaults are applied. */
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

/** The arguments of a call: path parameters, query, body. */
export type CallOf<A extends string, C> = Params<A> & Asks<C, 'query'> & Asks<C, 'body'>;
