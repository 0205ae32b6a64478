import fc, { type Arbitrary } from 'fast-check';
import type * as yup from 'yup';
import { WINDOW_UNITS } from '@vivid-beacon/core';
import { anyJson, oddNumber, oddText, someDate, someId, someMoment } from './oddValues';

type Described = yup.SchemaFieldDescription & {
  readonly fields?: Readonly<Record<string, Described>>;
  readonly innerType?: Described;
  readonly meta?: unknown;
  readonly oneOf?: readonly unknown[];
  readonly tests?: readonly { readonly name?: string; readonly params?: Readonly<Record<string, unknown>> }[];
};

/** What schemas that depend on their value say of themselves (core/src/schemas/shape.ts). */
interface Unions {
  readonly variants?: Readonly<Record<string, yup.ISchema<unknown>>>;
  readonly left?: { readonly union: yup.ISchema<unknown>; readonly usual: unknown };
}

const MAX_ENTRIES = 4;

/** Members whose shape a schema cannot say, by name. */
const BY_NAME: Readonly<Record<string, Arbitrary<unknown>>> = {
  hours: fc.letrec((again) => ({
    hours: fc.oneof(
      { maxDepth: 4, depthSize: 'small' },
      fc.record({ kind: fc.constant('clock'), from: clock(), to: clock() }),
      fc.record({
        kind: fc.constant('weekdays'),
        days: fc.array(fc.integer({ min: 1, max: 7 }), { maxLength: 9 }),
      }),
      fc.record({ kind: fc.constant('months'), months: fc.array(fc.integer({ min: 1, max: 12 })) }),
      fc.record({ kind: fc.constant('working'), inside: fc.boolean() }),
      fc.record({ kind: fc.constant('shift'), name: fc.constantFrom('Early', '') }),
      fc.record({ kind: fc.constantFrom('all', 'any'), of: fc.array(again('hours'), { maxLength: 30 }) }),
      fc.record({ kind: fc.constant('not'), of: again('hours') }),
    ),
  })).hours,
  window: someWindow(),
  expression: someExpression(),
  bindings: fc.dictionary(
    fc.constantFrom('a', 'b', 'gas', '1x'),
    fc.record({
      kind: fc.constantFrom('metric', 'children', 'attribute', 'factor'),
      metricId: someId,
      assetId: someId,
      factorId: someId,
      metricName: fc.constantFrom('Bed temperature', ''),
      attribute: fc.constantFrom('area', ''),
      summary: fc.constantFrom(null, 'mean', 'sum', 'p95'),
    }),
    { maxKeys: 3 },
  ),
};

function clock(): Arbitrary<string> {
  return fc.constantFrom('00:00', '06:00', '6:30', '24:00', '23:59');
}

function someWindow(): Arbitrary<object> {
  const unit = fc.constantFrom(...WINDOW_UNITS, 'age');
  const count = fc.constantFrom(1, 2, 7, 30, 400, 1000, 0, -1, 1e9);
  return fc.oneof(
    fc.record({ kind: fc.constant('rolling'), count, unit }),
    fc.record({ kind: fc.constantFrom('periods', 'next'), count, unit, current: fc.boolean() }),
    fc.record({ kind: fc.constant('toDate'), unit }),
    fc.record({ kind: fc.constant('absolute'), start: someDate, end: someDate }),
  );
}

function someExpression(): Arbitrary<string> {
  const call = fc.constantFrom('rolling(', 'lag(', 'difference(', 'cumulative(', 'min(', 'if(', 'rate(');
  return fc.oneof(
    fc.constantFrom('a / b', 'rolling(a, 7)', 'a + ', 'if(a > b, a, b)', 'a'),
    fc
      .tuple(call, fc.integer({ min: 1, max: 45 }), fc.integer({ min: 0, max: 1200 }))
      .map(([name, n, steps]) => `${name.repeat(n)}a${`, ${steps})`.repeat(n)}`),
    oddText,
  );
}

/** Values that nearly fit a schema: right in most members, odd in some, sometimes something else entirely. */
export function fromShape(schema: yup.ISchema<unknown>): Arbitrary<unknown> {
  return valueOf(schema.describe({}) as Described, '');
}

function valueOf(shape: Described, name: string): Arbitrary<unknown> {
  const fitting = fittingValue(shape, name);
  return fc.oneof({ weight: 24, arbitrary: fitting }, { weight: 1, arbitrary: anyJson });
}

function fittingValue(shape: Described, name: string): Arbitrary<unknown> {
  if (BY_NAME[name]) return BY_NAME[name];
  const { variants, left } = (shape.meta ?? {}) as Unions;
  if (variants) {
    return fc.oneof(...Object.values(variants).map((each) => valueOf(each.describe({}) as Described, name)));
  }
  if (left) {
    return fc.oneof(
      fc.constantFrom(left.usual, undefined),
      valueOf(left.union.describe({}) as Described, name),
    );
  }
  const listed = (shape.oneOf ?? []).filter((each) => each !== null);
  if (listed.length > 0) return fc.constantFrom(...listed);
  switch (shape.type) {
    case 'object':
      return objectOf(shape.fields ?? {});
    case 'array':
      return fc.array(shape.innerType ? valueOf(shape.innerType, oneOf(name)) : anyJson, {
        maxLength: MAX_ENTRIES,
      });
    case 'boolean':
      return fc.boolean();
    case 'number':
      return numberOf(shape, name);
    case 'string':
      return textOf(name);
    default:
      return anyJson;
  }
}

/** "metricIds" holds what "metricId" is. */
function oneOf(name: string): string {
  return name.replace(/s$/, '');
}

function objectOf(fields: Readonly<Record<string, Described>>): Arbitrary<object> {
  const members = Object.entries(fields).map(([name, shape]) => [name, valueOf(shape, name)] as const);
  return fc
    .tuple(
      fc.record(Object.fromEntries(members)),
      fc.record(Object.fromEntries(members), { requiredKeys: [] }),
      fc.integer({ min: 0, max: 5 }),
    )
    .map(([whole, some, dice]) => (dice === 0 ? some : whole));
}

function numberOf({ tests = [] }: Described, name: string): Arbitrary<number> {
  if (/(At|^from|^to|^start|^end|^at|^shift)$/.test(name)) return someMoment;
  const limit = (test: string, fallback: number): number => {
    const value = tests.find((each) => each.name === test)?.params?.[test];
    return typeof value === 'number' ? value : fallback;
  };
  const [min, max] = [limit('min', -1000), limit('max', 10_000)];
  const inside = fc.integer({ min: Math.ceil(min), max: Math.max(Math.ceil(min), Math.floor(max)) });
  return fc.oneof({ weight: 6, arbitrary: inside }, { weight: 1, arbitrary: oddNumber });
}

function textOf(name: string): Arbitrary<string> {
  if (/Ids?$/.test(name)) return someId;
  if (/^(start|end|from|to|date|day)$/.test(name)) return fc.oneof(someDate, clock());
  if (name === 'country') return fc.constantFrom('GB', 'DE', 'XX', '');
  if (name === 'zone') return fc.constantFrom('Europe/London', 'Asia/Kathmandu', 'Mars/Base', '');
  if (name === 'unit') return fc.constantFrom('kg', '°C', '%', 'kWh', '{x}', '');
  return fc.oneof(fc.constantFrom('Bed temperature', 'Early', 'a', 'Washer 1'), oddText);
}
