import { joinScopes, type PathOf } from '../board/joinScopes';
import type { GroupBy, Scope } from '../domain/query';

/** A group of an answer: what it is called there, and the asset it represents. */
export interface NamedGroup {
  readonly name: string;
  readonly assetId: string | null;
}

/**
 * The scope narrowed to one of its groups; null where no scope says it: assets of one kind, or without an attribute.
 *
 * @param scope that the group lies in; null = everything. Of a plant only those of its assets count that lie in it.
 * @param pathOf of the assets of both.
 * @example scopeOfGroup({ kind: 'attribute', name: 'Maker' }, { name: 'Acme', assetId: null }, null, () => undefined)
 * // => { assetIds: null, attributes: [{ name: 'Maker', values: ['Acme'] }] }
 */
export function scopeOfGroup(
  by: GroupBy,
  { name, assetId }: NamedGroup,
  scope: Scope | null,
  pathOf: PathOf,
): Scope | null {
  const { assetIds, attributes } = scope ?? { assetIds: null, attributes: [] };
  switch (by.kind) {
    case 'metric':
    case 'asset':
    case 'plant':
    case 'part':
      return assetId === null ? null : joinScopes({ assetIds: [assetId], attributes: [] }, scope, pathOf);
    case 'attribute':
      return name === ''
        ? null
        : { assetIds, attributes: [...attributes, { name: by.name, values: [name] }] };
    case 'assetKind':
      return null;
    case 'all':
      return { assetIds, attributes };
  }
}
