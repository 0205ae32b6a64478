import fc, { type Arbitrary } from 'fast-check';
import { anyJson } from './oddValues';

/** Every place in a document, as its path of keys and indexes. */
function placesIn(value: unknown, path: readonly string[] = []): (readonly string[])[] {
  if (typeof value !== 'object' || value === null) return [path];
  const below = Object.entries(value).flatMap(([key, each]) => placesIn(each, [...path, key]));
  return path.length === 0 ? below : [path, ...below];
}

function withAt(value: unknown, [key, ...rest]: readonly string[], put: unknown): unknown {
  if (key === undefined) return put;
  const inside = value as Record<string, unknown>;
  const changed = withAt(inside?.[key], rest, put);
  if (Array.isArray(value)) return value.map((each, i) => (String(i) === key ? changed : (each as unknown)));
  return { ...inside, [key]: changed };
}

/** A document with up to three places changed; often none, so that valid requests are sent too. */
export function changed(document: object): Arbitrary<unknown> {
  const places = placesIn(document);
  if (places.length === 0) return fc.constant(document);
  const change = fc.tuple(fc.constantFrom(...places), anyJson);
  return fc
    .array(change, { maxLength: 3, size: 'max' })
    .map((changes) => changes.reduce<unknown>((value, [path, put]) => withAt(value, path, put), document));
}
