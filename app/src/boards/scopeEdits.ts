import type { Scope } from '@vivid-beacon/core';

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
