import Ajv2020 from 'ajv/dist/2020';
import fc from 'fast-check';
import type { ISchema } from 'yup';
import { API } from '@vivid-beacon/core/src/api/api';
import type { Contract } from '@vivid-beacon/core';
import { changed } from '../testing/fuzz/changed';
import { goodBodies } from '../testing/fuzz/goodBodies';
import { JsonSchemas } from './jsonSchema';

/* The published JSON Schema must accept whatever the server accepts, as judged by a JSON Schema validator. */

const GOOD = goodBodies({
  plantId: '1',
  machineId: '2',
  metricIds: Array.from({ length: 8 }, (_, i) => `${i + 1}`),
  now: Date.UTC(2026, 10, 28),
});
const BODIES = Object.entries(GOOD).flatMap(([address, bodies]) => {
  const { body } = API[address as keyof typeof API] as Contract;
  return body ? [{ address, body, bodies }] : [];
});

function letsThrough(schema: ISchema<unknown>): (value: unknown) => boolean {
  const schemas = new JsonSchemas();
  const own = schemas.of(schema);
  const validate = new Ajv2020({ strict: false }).compile({ ...own, components: { schemas: schemas.named } });
  return (value) => validate(value) as boolean;
}

/** Strictly, without reading "5" as a number or trimming blanks. */
function isTaken(schema: ISchema<unknown>, value: unknown): boolean {
  return (schema as ISchema<unknown> & { isValidSync: (value: unknown, how: object) => boolean }).isValidSync(
    value,
    { strict: true },
  );
}

it.each(BODIES)('the schema of $address lets through what is taken', ({ body, bodies }) => {
  const lets = letsThrough(body);
  for (const good of bodies) expect([good, lets(good)]).toEqual([good, true]);
  fc.assert(
    fc.property(fc.constantFrom(...bodies).chain(changed), (value) => {
      if (isTaken(body, value)) expect([value, lets(value)]).toEqual([value, true]);
    }),
    { numRuns: 100, seed: 1 },
  );
});

it('the schema of a rule refuses what no rule is', () => {
  const { address, body, bodies } = BODIES.find((each) => each.address === 'POST /api/alarm-rules')!;
  expect(address).toBeDefined();
  const lets = letsThrough(body);
  const [rule] = bodies as [Record<string, unknown>];
  expect(lets({ ...rule, test: { kind: 'limit', side: 'above', limit: 'high', deadband: 0 } })).toBe(false);
  expect(lets({ ...rule, test: { kind: 'weather' } })).toBe(false);
  expect(lets({ ...rule, hours: { kind: 'clock', from: 'six' } })).toBe(false);
  expect(lets({ ...rule, name: undefined })).toBe(false);
});
