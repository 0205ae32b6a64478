import { ROLES } from '@vivid-beacon/core';
import type { Endpoint } from './endpoint';
import { JsonSchemas } from './jsonSchema';

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
  const schemas = new JsonSchemas();
  for (const each of endpoints) {
    const path = each.path.replace(/:(\w+)/g, '{$1}');
    (paths[path] ??= {})[each.method] = operation(each, schemas);
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
      schemas: { ...schemas.named, Error: ERROR_SCHEMA },
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'vivid-beacon' },
        formToken: { type: 'apiKey', in: 'header', name: 'x-form-token' },
        pushToken: { type: 'http', scheme: 'bearer' },
      },
    },
  };
}

function operation(each: Endpoint, schemas: JsonSchemas): object {
  const isRole = (ROLES as readonly string[]).includes(each.access);
  const changes = each.method !== 'get';
  return {
    summary: each.summary,
    description: isRole ? `Needs the role ${each.access} or a higher one.` : undefined,
    parameters: [...pathParameters(each), ...queryParameters(each, schemas)],
    security: isRole
      ? [changes ? { session: [], formToken: [] } : { session: [] }]
      : each.access === 'token'
        ? [{ pushToken: [] }]
        : [],
    requestBody: requestBody(each, schemas),
    responses: { ...goodResponse(each, schemas), ...errorResponses(each) },
  };
}

function pathParameters({ path, names }: Endpoint): object[] {
  return [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string', pattern: names?.[name]?.source ?? '^[1-9][0-9]*$' },
  }));
}

function queryParameters({ query }: Endpoint, schemas: JsonSchemas): object[] {
  if (!query) return [];
  const { properties = {}, required = [] } = schemas.of(query) as {
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

function requestBody({ body, content = [] }: Endpoint, schemas: JsonSchemas): object | undefined {
  if (body) return { required: true, content: { 'application/json': { schema: schemas.of(body) } } };
  return content.length === 0 ? undefined : { required: true, content: mediaTypes(content) };
}

const mediaTypes = (types: readonly string[]): object => Object.fromEntries(types.map((type) => [type, {}]));

function goodResponse({ answer }: Endpoint, schemas: JsonSchemas): Readonly<Record<string, object>> {
  if ('nothing' in answer) return { 204: { description: 'Done.' } };
  if ('content' in answer) return { 200: { description: answer.words, content: mediaTypes(answer.content) } };
  const bytes = answer.bytes === undefined ? {} : mediaTypes(['application/octet-stream']);
  const description = [answer.words, answer.bytes && `In bytes: ${answer.bytes}`].filter(Boolean).join('. ');
  const content = { 'application/json': { schema: schemas.of(answer.json) }, ...bytes };
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
