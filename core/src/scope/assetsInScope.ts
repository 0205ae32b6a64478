import type { AttributeCondition, Scope } from '../domain/query';

/** Does an asset have all of these attributes? An attribute it lacks is no match, whatever values are asked for. */
export function hasAttributes(
  { attributes }: { readonly attributes: Readonly<Record<string, string | number>> },
  conditions: readonly AttributeCondition[],
): boolean {
  return conditions.every(
    ({ name, values }) => Object.hasOwn(attributes, name) && values.includes(attributes[name]),
  );
}

interface TreeAsset {
  readonly id: string;
  readonly parentId: string | null;
  readonly attributes: Readonly<Record<string, string | number>>;
}

/**
 * Ids of the assets of a scope: the given ones with everything below them (all assets when none are given), of those the
 * ones with the attributes.
 *
 * @param assets parents before children.
 * @example assetsInScope([{ id: '1', parentId: null, attributes: {} }, { id: '2', parentId: '1', attributes: {} }],
 *   { assetIds: ['1'], attributes: [] }) // => ['1', '2']
 */
export function assetsInScope(assets: readonly TreeAsset[], scope: Scope): string[] {
  const chosen = scope.assetIds && new Set(scope.assetIds);
  const inside = new Set<string>();
  for (const { id, parentId } of assets) {
    if (!chosen || chosen.has(id) || (parentId !== null && inside.has(parentId))) inside.add(id);
  }
  return assets
    .filter((asset) => inside.has(asset.id) && hasAttributes(asset, scope.attributes))
    .map(({ id }) => id);
}

/**
 * Of metrics of one name the highest in the tree: the total of a wash house contains those of its lines, which must not
 * be counted again.
 *
 * @param parents each asset's parent; null for a plant.
 */
export function topmost<Metric extends { readonly name: string; readonly assetId: string }>(
  metrics: readonly Metric[],
  parents: ReadonlyMap<string, string | null>,
): Metric[] {
  if (metrics.length < 2) return [...metrics];
  const named = new Map<string, Set<string>>();
  for (const { name, assetId } of metrics) named.set(name, (named.get(name) ?? new Set()).add(assetId));
  return metrics.filter(({ name, assetId }) => {
    for (let at = parents.get(assetId) ?? null; at !== null; at = parents.get(at) ?? null) {
      if (named.get(name)!.has(at)) return false;
    }
    return true;
  });
}
