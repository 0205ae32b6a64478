// Only the converters: the rest of the package changes the types of yup to those of an older one.
import { convertSchema } from '@sodaru/yup-to-json-schema/dist/converters';
import type { ISchema } from 'yup';
import { ROLES } from '@vivid-beacon/core';
import type { Endpoint } from './endpoint';

type Json = Readonly<Record<string, unknown>>;

const ERROR_SCHEMA = {
  type: 'object',
  required: ['error'],
  properties: {
    error: {
      type: 'object',
      required: ['code', 'message'],
      properties: {
        code: { type: 'string' },
        message: { type: 'string' },
        path: { type: 'string', description: 'the field or place that is wrong' },
      },
    },
  },
};

/**
 * The OpenAPI 3.1 description of the server, made from the same contracts the routes are made from, so that it
 * cannot say anything else.
 */
export function describeApi(endpoints: readonly Endpoint[], version: string): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const each of endpoints) {
    const path = each.path.replace(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[each.method] = operation(each);
  }
  return {
    openapi: '3.1.0',
    info: {
      title: 'Vivid Beacon',
      version,
      description: 'Ids are strings of digits. Times are ms since the Unix epoch unless stated otherwise.',
    },
    paths,
    components: {
      schemas: { Error: ERROR_SCHEMA },
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'vivid-beacon' },
        formToken: { type: 'apiKey', in: 'header', name: 'x-form-token' },
        pushToken: { type: 'http', scheme: 'bearer' },
      },
    },
  };
}

function operation(each: Endpoint): object {
  const isRole = (ROLES as readonly string[]).includes(each.access);
  const changes = each.method !== 'get';
  return {
    summary: each.summary,
    description: isRole ? `Needs the role ${each.access} or a higher one.` : undefined,
    parameters: [...pathParameters(each), ...queryParameters(each)],
    security: isRole
      ? [changes ? { session: [], formToken: [] } : { session: [] }]
      : each.access === 'token'
        ? [{ pushToken: [] }]
        : [],
    requestBody: requestBody(each),
    responses: { ...goodResponse(each), ...errorResponses(each) },
  };
}

function pathParameters({ path }: Endpoint): object[] {
  return [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string', pattern: '^[1-9][0-9]*$' },
  }));
}

function queryParameters({ query }: Endpoint): object[] {
  if (!query) return [];
  const { properties = {}, required = [] } = jsonSchema(query) as {
    properties?: Record<string, object>;
    required?: string[];
  };
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }));
}

function requestBody({ body, content = [] }: Endpoint): object | undefined {
  if (body) return { required: true, content: { 'application/json': { schema: jsonSchema(body) } } };
  return content.length === 0 ? undefined : { required: true, content: mediaTypes(content) };
}

const mediaTypes = (types: readonly string[]): object => Object.fromEntries(types.map((type) => [type, {}]));

function goodResponse({ answer }: Endpoint): Readonly<Record<string, object>> {
  if ('nothing' in answer) return { 204: { description: 'Done.' } };
  if ('content' in answer) return { 200: { description: answer.words, content: mediaTypes(answer.content) } };
  const bytes = answer.bytes === undefined ? {} : mediaTypes(['application/octet-stream']);
  const description = [answer.words, answer.bytes && `In bytes: ${answer.bytes}`].filter(Boolean).join('. ');
  const content = { 'application/json': { schema: jsonSchema(answer.json) }, ...bytes };
  return { 200: { description: description || 'As asked.', content } };
}

/** Everything that may go wrong with an endpoint: by status, what it means. */
export function errorsOf(each: Endpoint): Readonly<Record<string, string>> {
  const { access, method, path, query, body, content, errors } = each;
  const isOpen = access === 'anybody' || access === 'token';
  const reads = body !== undefined || content !== undefined;
  const usual: Readonly<Record<number, string | false>> = {
    400: method !== 'get' && 'BAD_SHAPE for a body that cannot be read',
    401: access === 'token' ? 'WRONG_TOKEN' : !isOpen && 'NOT_SIGNED_IN',
    403: access === 'token' ? false : isOpen ? method !== 'get' && 'STALE_FORM' : 'NOT_ALLOWED, STALE_FORM',
    404: path.includes(':') && 'NOT_FOUND',
    413: method !== 'get' && 'TOO_LARGE',
    422: (reads || query !== undefined) && 'BAD_INPUT names the field and what is allowed',
    503: 'NOT_READY with Retry-After while the database is away',
  };
  const told = Object.entries(usual).filter((entry): entry is [string, string] => entry[1] !== false);
  const all: Record<string, string> = Object.fromEntries(told);
  for (const [status, words] of Object.entries(errors ?? {})) {
    all[status] = all[status] === undefined ? words : `${words}; ${all[status]}`;
  }
  return all;
}

function errorResponses(each: Endpoint): Readonly<Record<string, object>> {
  const content = { 'application/json': { schema: { $ref: '#/components/schemas/Error' } } };
  const told = Object.entries(errorsOf(each)).map(([status, description]) => [
    status,
    { description, content },
  ]);
  return { ...Object.fromEntries(told), 500: { description: 'INTERNAL', content } };
}

/** What schemas that a converter cannot look into say of themselves (core/src/schemas/shape.ts). */
interface Told {
  readonly jsonSchema?: Json;
  readonly variants?: Readonly<Record<string, ISchema<unknown>>>;
  readonly left?: { readonly union: ISchema<unknown>; readonly usual: unknown };
  readonly members?: ISchema<unknown>;
  readonly shape?: ISchema<unknown>;
}

/** The JSON Schema of what a schema lets through. */
export function jsonSchema(schema: ISchema<unknown>): Json {
  const converters = { mixed: (described: { meta?: unknown }) => toldSchema(described.meta ?? {}) };
  return withNull(convertSchema(schema as never, { converters } as never)) as Json;
}

function toldSchema({ jsonSchema: written, variants, left, members, shape }: Told): Json {
  if (variants) return { oneOf: Object.values(variants).map(jsonSchema) };
  if (left) {
    const union = jsonSchema(left.union);
    return left.usual === null
      ? { oneOf: [...(union.oneOf as Json[]), { type: 'null' }] }
      : { ...union, default: left.usual };
  }
  if (members) return { type: 'object', additionalProperties: jsonSchema(members) };
  return shape ? jsonSchema(shape) : (written ?? {});
}

/** Where null is allowed it must be among the listed values too. */
function withNull(value: unknown): unknown {
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return value.map(withNull);
  const all = Object.fromEntries(Object.entries(value).map(([key, each]) => [key, withNull(each)]));
  const { enum: listed, type } = all;
  const isNullable = Array.isArray(type) && type.includes('null');
  return isNullable && Array.isArray(listed) && !listed.includes(null)
    ? { ...all, enum: [...(listed as unknown[]), null] }
    : all;
}
