import { attributeOf, nameKey, sameValue } from '../text/sameName';
import type { AttributeCondition } from '../domain/query';

/** Whether an asset has all of these attributes. A missing attribute never matches. */
export function hasAttributes(
  { attributes }: { readonly attributes: Readonly<Record<string, string | number>> },
  conditions: readonly AttributeCondition[],
): boolean {
  return conditions.every(({ name, values }) => {
    const own = attributeOf(attributes, name);
    return own !== undefined && values.some((each) => sameValue(each, own));
  });
}

/**
 * Whether an asset lies in a scope by its place in the tree. `hasAttributes` matches the attributes of the
 * scope.
 *
 * @param path ids from the plant down to the asset itself. @param assetIds assets of the scope, each with
 * everything below; null = all.
 * @example isUnder(['1', '4', '9'], ['4']) // => true
 */
export function isUnder(path: readonly string[], assetIds: readonly string[] | null): boolean {
  return assetIds === null || path.some((id) => assetIds.includes(id));
}

/**
 * The topmost metrics of one name: the total of a wash house already includes those of its lines.
 * @example topmost([{ name: 'Washed', assetId: '1', path: ['1'] }, { name: 'Washed', assetId: '2', path: ['1', '2'] }]).length // => 1
 */
export function topmost<
  Metric extends { readonly name: string; readonly assetId: string; readonly path: readonly string[] },
>(metrics: readonly Metric[]): Metric[] {
  if (metrics.length < 2) return [...metrics];
  const named = new Map<string, Set<string>>();
  for (const { name, assetId } of metrics) {
    const assets = named.get(nameKey(name));
    if (assets) assets.add(assetId);
    else named.set(nameKey(name), new Set([assetId]));
  }
  return metrics.filter(
    ({ name, assetId, path }) => !path.some((id) => id !== assetId && named.get(nameKey(name))!.has(id)),
  );
}
