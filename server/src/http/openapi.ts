import { convertSchema } from '@sodaru/yup-to-json-schema';
import { ROLES } from '@vivid-beacon/core';
import type { Endpoint } from './endpoint';

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
 * The OpenAPI 3.1 description of the server, made from the same list the routes are made from, so that it
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
  const parameters: object[] = [...each.path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: { type: 'string', pattern: '^[1-9][0-9]*$' },
  }));
  if (each.query) {
    const { properties = {}, required = [] } = convertSchema(each.query as never) as {
      properties?: Record<string, object>;
      required?: string[];
    };
    for (const [name, schema] of Object.entries(properties)) {
      parameters.push({ name, in: 'query', required: required.includes(name), schema });
    }
  }
  const isRole = (ROLES as readonly string[]).includes(each.access);
  const changes = each.method !== 'get';
  return {
    summary: each.summary,
    description: isRole ? `Needs the role ${each.access} or a higher one.` : undefined,
    parameters,
    security: isRole
      ? [changes ? { session: [], formToken: [] } : { session: [] }]
      : each.access === 'token'
        ? [{ pushToken: [] }]
        : [],
    requestBody: each.body && {
      required: true,
      content: { 'application/json': { schema: convertSchema(each.body as never) } },
    },
    responses: {
      '200': { description: each.answer, content: { 'application/json': {} } },
      default: {
        description: 'What went wrong, in words',
        content: { 'application/json': { schema: { $ref: '#/components/schemas/Error' } } },
      },
    },
  };
}
