import { useState } from 'react';
import type { Asset } from '@vivid-beacon/core';
import { useAssetPages, useAssetsById, type AssetFilter } from '../api/catalogue';
import { useSettled } from '../hooks/useSettled';
import { SearchedPick, type SearchedPickProps } from './SearchedPick';

interface AssetPickProps extends SearchedPickProps {
  readonly onChoose: (asset: Asset) => void;
  readonly filter?: Omit<AssetFilter, 'title'>;
  /** An asset that cannot be chosen, with all below it. */
  readonly leaveOut?: string;
}

const SETTLED_MS = 200;

/** Assets under their full names, searched on the server, to choose one from; the chosen one stands first. */
export function AssetPick({ onChoose, filter, leaveOut, ...list }: AssetPickProps) {
  const { chosen } = list;
  const [search, setSearch] = useState('');
  const words = useSettled(search, SETTLED_MS);
  const found = useAssetPages({ ...filter, title: words });
  const { byId } = useAssetsById([chosen]);
  const page = found.data?.pages.flatMap(({ items }) => items as readonly Asset[]) ?? [];
  const own = chosen === null || words !== '' ? undefined : byId.get(chosen);
  const assets = [...(own && !page.some(({ id }) => id === own.id) ? [own] : []), ...page].filter(
    ({ path }) => leaveOut === undefined || !path.includes(leaveOut),
  );
  return (
    <SearchedPick
      {...list}
      options={assets.map(({ id, name, title }) => ({ value: id, label: name, detail: title }))}
      found={found}
      search={search}
      settled={words}
      onSearch={setSearch}
      onChoose={(id) => onChoose(assets.find((asset) => asset.id === id)!)}
    />
  );
}
