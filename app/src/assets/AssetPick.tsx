import { useState } from 'react';
import type { Asset } from '@vivid-beacon/core';
import { useAssetPages, useAssetsById, type AssetFilter } from '../api/catalogue';
import { PickList, type PickOption } from '../components/PickList';
import { useSettled } from '../hooks/useSettled';

interface AssetPickProps {
  readonly name: string;
  readonly chosen: string | null;
  readonly onChoose: (asset: Asset) => void;
  readonly filter?: Omit<AssetFilter, 'search'>;
  /** An asset that cannot be chosen, with all below it. */
  readonly leaveOut?: string;
  /** Something else that can be chosen instead of an asset, above them. */
  readonly instead?: { readonly label: string; readonly onChoose: () => void };
  readonly maxHeight?: number;
}

const INSTEAD = 'instead';
const SETTLED_MS = 200;

/** Assets under their full names, searched on the server, to choose one from; the chosen one stands first. */
export function AssetPick({ name, chosen, onChoose, filter, leaveOut, instead, maxHeight }: AssetPickProps) {
  const [search, setSearch] = useState('');
  const words = useSettled(search, SETTLED_MS);
  const query = useAssetPages({ ...filter, search: words });
  const { byId } = useAssetsById([chosen]);
  const found = query.data?.pages.flatMap(({ items }) => items as readonly Asset[]) ?? [];
  const own = chosen === null || words !== '' ? undefined : byId.get(chosen);
  const assets = [...(own && !found.some(({ id }) => id === own.id) ? [own] : []), ...found].filter(
    ({ path }) => leaveOut === undefined || !path.includes(leaveOut),
  );
  const options: PickOption<string>[] = assets.map((asset) => ({
    value: asset.id,
    label: asset.name,
    detail: asset.title,
  }));
  return (
    <PickList
      name={name}
      options={instead ? [{ value: INSTEAD, label: instead.label }, ...options] : options}
      chosen={chosen ?? (instead ? INSTEAD : null)}
      onChoose={(id) =>
        id === INSTEAD ? instead!.onChoose() : onChoose(assets.find((asset) => asset.id === id)!)
      }
      maxHeight={maxHeight}
      searched={{
        text: search,
        onText: setSearch,
        total: query.data?.pages[0].total ?? 0,
        onMore: query.hasNextPage ? () => void query.fetchNextPage() : null,
        reading: query.isPending,
      }}
    />
  );
}
