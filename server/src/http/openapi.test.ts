import SwaggerParser from '@apidevtools/swagger-parser';
import { API } from '@vivid-beacon/core/src/api/api';
import { ENDPOINTS } from '../endpoints';
import { describeApi, jsonSchema } from './openapi';

interface Operation {
  readonly requestBody?: { readonly content: Readonly<Record<string, object>> };
  readonly responses: Readonly<Record<string, { readonly content?: Readonly<Record<string, object>> }>>;
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
      ({ answer }) => 'json' in answer && Object.keys(jsonSchema(answer.json)).length === 0,
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

  it('lays kinds of one thing side by side, each with the members it has', () => {
    const { test } = (jsonSchema(API['POST /api/alarm-rules'].body) as { properties: { test: object } })
      .properties;
    const { oneOf } = test as { oneOf: { properties: object }[] };
    expect(oneOf.map(({ properties }) => Object.keys(properties))).toContainEqual(['kind', 'forMs']);
  });
});

describe('ENDPOINTS', () => {
  it('answers every contract', () => {
    const answered = ENDPOINTS.map(({ method, path }) => `${method.toUpperCase()} ${path}`);
    expect(answered.sort()).toEqual(Object.keys(API).sort());
  });
});
