import type { Asset } from '@vivid-beacon/core';

/** Names from the plant down to an asset. */
export function pathOf(asset: Asset, assets: readonly Asset[]): string[] {
  const byId = new Map(assets.map((each) => [each.id, each]));
  const names: string[] = [];
  for (let at: Asset | undefined = asset; at; at = at.parentId === null ? undefined : byId.get(at.parentId)) {
    names.unshift(at.name);
  }
  return names;
}
