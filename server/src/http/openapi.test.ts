import SwaggerParser from '@apidevtools/swagger-parser';
import { ENDPOINTS } from '../endpoints';
import { describeApi } from './openapi';

describe('describeApi', () => {
  it('is valid OpenAPI and names every endpoint once', async () => {
    const description = describeApi(ENDPOINTS, '0.0.0') as { paths: Record<string, Record<string, object>> };
    await SwaggerParser.validate(structuredClone(JSON.parse(JSON.stringify(description))));
    const named = Object.entries(description.paths).flatMap(([path, methods]) =>
      Object.keys(methods).map((method) => `${method} ${path}`),
    );
    expect(named).toHaveLength(ENDPOINTS.length);
  });

  it('says for every endpoint what it does and who may call it', () => {
    for (const { summary, answer, access } of ENDPOINTS) {
      expect(summary.length).toBeGreaterThan(8);
      expect(answer.length).toBeGreaterThan(3);
      expect(access).toMatch(/^(anybody|token|viewer|operator|analyst|administrator)$/);
    }
  });
});
