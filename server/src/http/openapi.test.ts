import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import SwaggerParser from '@apidevtools/swagger-parser';
import { API } from '@vivid-beacon/core/src/api/api';
import { ENDPOINTS } from '../endpoints';
import { listOfEndpoints } from '../testing/listOfEndpoints';
import { JsonSchemas } from './jsonSchema';
import { describeApi } from './openapi';

interface Operation {
  readonly requestBody?: { readonly content: Readonly<Record<string, object>> };
  readonly responses: Readonly<Record<string, { readonly content?: Readonly<Record<string, object>> }>>;
}

interface Schema {
  readonly oneOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, unknown>>;
}

const description = JSON.parse(JSON.stringify(describeApi(ENDPOINTS, '0.0.0'))) as {
  paths: Record<string, Record<string, Operation>>;
};
const { paths } = description;

describe('describeApi', () => {
  it('is valid OpenAPI and names every endpoint once', async () => {
    await SwaggerParser.validate(structuredClone(description) as never);
    const named = Object.entries(paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path}`),
    );
    expect(named).toHaveLength(ENDPOINTS.length);
  });

  it('says for every endpoint what it does and who may call it', () => {
    for (const { summary, access } of ENDPOINTS) {
      expect(summary.length).toBeGreaterThan(8);
      expect(access).toMatch(/^(anybody|token|viewer|operator|analyst|administrator)$/);
    }
  });

  it('gives the schema of every JSON answer, and the true status and content type of all others', () => {
    const saysNothing = ENDPOINTS.filter(
      ({ answer }) => 'json' in answer && Object.keys(new JsonSchemas().of(answer.json)).length === 0,
    );
    expect(saysNothing).toEqual([]);
    expect(Object.keys(paths['/api/metrics/{id}'].delete.responses)).toContain('204');
    const { post } = paths['/api/readings/query'];
    expect(Object.keys(post.responses['200'].content!)).toEqual([
      'application/json',
      'application/octet-stream',
    ]);
    expect(Object.keys(paths['/api/samples'].post.requestBody!.content)).toContain(
      'application/openmetrics-text',
    );
    expect(Object.keys(paths['/api/live'].get.responses['200'].content!)).toEqual(['text/event-stream']);
  });

  it('tells what comes up again once, by its name, kinds of one thing side by side', () => {
    const { schemas } = (description as unknown as { components: { schemas: Record<string, Schema> } })
      .components;
    expect(Object.keys(schemas)).toEqual(
      expect.arrayContaining(['Alarm', 'AlarmTest', 'Error', 'TargetBand']),
    );
    const kinds = schemas.AlarmTest.oneOf!.map(({ properties }) => Object.keys(properties!));
    expect(kinds).toContainEqual(['kind', 'forMs']);
    expect(schemas.Alarm.properties!.test).toEqual({ $ref: '#/components/schemas/AlarmTest' });
    expect(schemas.Alarm.properties!.returnedAt).toEqual({ type: ['number', 'null'] });
  });
});

describe('ENDPOINTS', () => {
  it('answers every contract', () => {
    const answered = ENDPOINTS.map(({ method, path }) => `${method.toUpperCase()} ${path}`);
    expect(answered.sort()).toEqual(Object.keys(API).sort());
  });
});

/** `npm run endpoints` writes the file; otherwise it is compared. */
it('are listed in docs/endpoints.md as they are', async () => {
  const file = path.join(__dirname, '..', '..', '..', 'docs', 'endpoints.md');
  const list = listOfEndpoints(ENDPOINTS);
  if (process.env.WRITE_ENDPOINTS) await writeFile(file, list);
  expect(await readFile(file, 'utf8')).toBe(list);
});
