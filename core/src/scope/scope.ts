import type { AttributeCondition } from '../domain/query';

/** Does an asset have all of these attributes? An attribute it lacks is no match, whatever values are asked for. */
export function hasAttributes(
  { attributes }: { readonly attributes: Readonly<Record<string, string | number>> },
  conditions: readonly AttributeCondition[],
): boolean {
  return conditions.every(
    ({ name, values }) => Object.hasOwn(attributes, name) && values.includes(attributes[name]),
  );
}

/**
 * Does an asset lie in a scope, as far as its place goes? The attributes of a scope are matched by `hasAttributes`.
 *
 * @param path ids from the plant down to the asset itself. @param assetIds given assets with everything below them; null = all.
 * @example isUnder(['1', '4', '9'], ['4']) // => true
 */
export function isUnder(path: readonly string[], assetIds: readonly string[] | null): boolean {
  return assetIds === null || path.some((id) => assetIds.includes(id));
}

/**
 * Of metrics of one name the highest in the tree: the total of a wash house contains those of its lines, which must not
 * be counted again.
 */
export function topmost<
  Metric extends { readonly name: string; readonly assetId: string; readonly path: readonly string[] },
>(metrics: readonly Metric[]): Metric[] {
  if (metrics.length < 2) return [...metrics];
  const named = new Map<string, Set<string>>();
  for (const { name, assetId } of metrics) {
    const assets = named.get(name);
    if (assets) assets.add(assetId);
    else named.set(name, new Set([assetId]));
  }
  return metrics.filter(
    ({ name, assetId, path }) => !path.some((id) => id !== assetId && named.get(name)!.has(id)),
  );
}
