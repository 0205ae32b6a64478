import fc from 'fast-check';
import { BeaconError } from '@vivid-beacon/core';
import { ENDPOINTS } from '../../endpoints';
import { checked } from '../../http/errors';
import { changed } from './changed';
import { fromShape } from './fromShape';
import { goodBodies } from './goodBodies';

const GOOD = goodBodies({
  plantId: '1',
  machineId: '2',
  metricIds: Array.from({ length: 8 }, (_, i) => `${i + 1}`),
  now: Date.UTC(2026, 10, 28),
});

/** An exception without a message for the caller is answered 500. This seed finds a list with null in it. */
const SEED = 2;
const SCHEMAS = ENDPOINTS.flatMap(({ method, path, body, query }) => {
  const name = `${method.toUpperCase()} ${path}`;
  const good = GOOD[name] ?? [];
  return [body, query].filter((schema) => schema !== undefined).map((schema) => ({ name, schema, good }));
});

it.each(SCHEMAS)('$name takes or refuses whatever is sent', async ({ schema, good }) => {
  const sent = fc.oneof(fromShape(schema), ...good.map(changed));
  await fc.assert(
    fc.asyncProperty(sent, async (value) => {
      const wrong = await checked(schema, value).then(
        () => null,
        (error: unknown) => (error instanceof BeaconError ? null : error),
      );
      expect(wrong).toBeNull();
    }),
    { numRuns: 200, seed: SEED },
  );
});

it.each(['__proto__', 'constructor', 'prototype', 'toString', 'hasOwnProperty', '__defineGetter__'])(
  'a member named %s is refused with its place',
  async (name) => {
    const body = JSON.parse(`{"attributes": {"${name}": 1}}`) as object;
    const { schema } = SCHEMAS.find((each) => each.name === 'POST /api/assets')!;
    await expect(checked(schema, body)).rejects.toMatchObject({ status: 422, path: `attributes.${name}` });
  },
);

it.each(SCHEMAS.filter(({ name, good }) => good.length > 0 && !name.startsWith('GET')))(
  '$name takes the requests the fuzzer begins with',
  async ({ schema, good }) => {
    for (const each of good) await checked(schema, each);
  },
);
