import type { Endpoint } from '../http/endpoint';
import { JsonSchemas } from '../http/jsonSchema';

interface Schema {
  readonly $ref?: string;
  readonly oneOf?: readonly Schema[];
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  readonly type?: string | readonly string[];
  readonly items?: Schema;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly required?: readonly string[];
  readonly additionalProperties?: Schema;
}

/** A JSON Schema in one line: `{ id: string, until: number | null, tags?: [string] }`. */
function inWords(schema: Schema): string {
  if (schema.$ref !== undefined) return schema.$ref.split('/').at(-1)!;
  if (schema.oneOf) return schema.oneOf.map(inWords).join(' | ');
  if (schema.const !== undefined) return String(schema.const);
  if (schema.enum) return schema.enum.map(String).join(' | ');
  if (schema.properties) {
    const members = Object.entries(schema.properties).map(
      ([name, each]) => `${name}${schema.required?.includes(name) ? '' : '?'}: ${inWords(each)}`,
    );
    return members.length === 0 ? '{ }' : `{ ${members.join(', ')} }`;
  }
  if (schema.additionalProperties) return `{ [name]: ${inWords(schema.additionalProperties)} }`;
  const types = [schema.type ?? 'anything'].flat();
  return types.map((type) => (type === 'array' ? `[${inWords(schema.items ?? {})}]` : type)).join(' | ');
}

function answerOf({ answer }: Endpoint, schemas: JsonSchemas): string {
  if ('nothing' in answer) return '204';
  if ('content' in answer) return `200 ${answer.content.join(', ')}: ${answer.words}`;
  const bytes = answer.bytes === undefined ? '' : ` Also as application/octet-stream: ${answer.bytes}.`;
  return `200 \`${inWords(schemas.of(answer.json))}\`${answer.words && ` – ${answer.words}.`}${bytes}`;
}

/** Every endpoint with its schemas, in Markdown. */
export function listOfEndpoints(endpoints: readonly Endpoint[]): string {
  const schemas = new JsonSchemas();
  const told = endpoints.map((each) => {
    const { method, path, access, summary, query, body, content, errors = {} } = each;
    return [
      `### ${method.toUpperCase()} ${path}`,
      '',
      `${summary} (${access})`,
      '',
      ...(query ? [`- query \`${inWords(schemas.of(query))}\``] : []),
      ...(body ? [`- body \`${inWords(schemas.of(body))}\``] : []),
      ...(content ? [`- body ${content.join(', ')}`] : []),
      `- ${answerOf(each, schemas)}`,
      ...Object.entries(errors).map(([status, words]) => `- ${status} ${words}`),
      '',
    ].join('\n');
  });
  const named = Object.keys(schemas.named)
    .sort()
    .map((name) => `- **${name}** \`${inWords(schemas.named[name])}\``);
  return [
    '# Endpoints',
    '',
    'Written by `npm run endpoints` from the contracts in `core/src/api`; a test compares it with them. The same as',
    'OpenAPI 3.1 is at `/api/openapi.json`. Ids are strings of digits, times ms since the Unix epoch.',
    '',
    'Besides what is told of each: 400 and 413 for a body that cannot be read or is too large, 401 and 403 without the',
    'role in brackets or the form token, 404 for an id that is not there, 422 for what does not fit the schema, 503 with',
    'Retry-After while the database is away. Every error is `{ error: { code, message, path? } }`.',
    '',
    ...told,
    '## Shapes',
    '',
    ...named,
    '',
  ].join('\n');
}
