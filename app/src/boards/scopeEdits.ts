import type { Asset, Scope } from '@vivid-beacon/core';

/** An attribute that assets have, with the values it takes. */
export interface AttributeValues {
  readonly name: string;
  readonly values: readonly (string | number)[];
}

const MOST_VALUES = 60;

/** Attributes of assets and the values they take; those with too many different ones (measures) are left out. */
export function attributeValues(assets: readonly Asset[]): AttributeValues[] {
  const found = new Map<string, Set<string | number>>();
  for (const { attributes } of assets) {
    for (const [name, value] of Object.entries(attributes)) {
      const values = found.get(name);
      if (values) values.add(value);
      else found.set(name, new Set([value]));
    }
  }
  return [...found]
    .filter(([, values]) => values.size <= MOST_VALUES)
    .map(([name, values]) => ({ name, values: [...values].sort(inOrder) }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** Names of the attributes that have such a value on some asset, in order. */
export function attributesWith(
  assets: readonly Asset[],
  fits: (value: string | number) => boolean,
): string[] {
  const names = new Set<string>();
  for (const { attributes } of assets)
    for (const [name, value] of Object.entries(attributes)) if (fits(value)) names.add(name);
  return [...names].sort((a, b) => a.localeCompare(b));
}

function inOrder(a: string | number, b: string | number): number {
  return typeof a === 'number' && typeof b === 'number' ? a - b : String(a).localeCompare(String(b));
}

/** Adds an asset to a scope or takes it out; none left means all. */
export function toggleAsset({ assetIds, attributes }: Scope, id: string): Scope {
  const now = assetIds ?? [];
  const next = now.includes(id) ? now.filter((each) => each !== id) : [...now, id];
  return { assetIds: next.length === 0 ? null : next, attributes };
}

/** Sets which values of an attribute are in; none means all. */
export function setAttribute(
  attributes: Scope['attributes'],
  name: string,
  values: readonly (string | number)[],
): Scope['attributes'] {
  const others = attributes.filter((each) => each.name !== name);
  return values.length === 0 ? others : [...others, { name, values }];
}
