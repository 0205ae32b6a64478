import { useCallback } from 'react';
import type { PathOf, Readout } from '@vivid-beacon/core';
import type { NamedGroup } from '@vivid-beacon/core/src/boards';
import { useAssetsById } from '../api/catalogue';

/** Where the assets of a group and of the scope of its readout lie; null until it is known. */
export function usePathsOf({ scope }: Pick<Readout, 'scope'>, group: NamedGroup | null): PathOf | null {
  const within = scope?.assetIds ?? null;
  const { byId, whole } = useAssetsById(within && group?.assetId ? [group.assetId, ...within] : []);
  const pathOf = useCallback((id: string) => byId.get(id)?.path, [byId]);
  return whole ? pathOf : null;
}
