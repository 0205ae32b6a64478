import { useState } from 'react';
import type { Asset } from '@vivid-beacon/core';
import { useAssetPages, useAssetsById, type AssetSearch } from '../api/catalogue';
import { itemsOf } from '../api/pages';
import { useSearch } from '../components/SearchField';
import { SearchedPick, type SearchedPickProps } from './SearchedPick';

interface AssetPickProps extends SearchedPickProps {
  readonly onChoose: (asset: Asset) => void;
  readonly filter?: Omit<AssetSearch, 'title'>;
  /** An asset that cannot be chosen, with all below it. */
  readonly leaveOut?: string;
}

/** Assets under their full names, searched on the server, to choose one from; the chosen one stands first. */
export function AssetPick({ onChoose, filter, leaveOut, ...list }: AssetPickProps) {
  const { chosen } = list;
  const search = useSearch();
  const found = useAssetPages({ ...filter, title: search.settled });
  const page = itemsOf(found.data);
  // The one that was chosen before stands first, or its place could be far down; while choosing nothing moves.
  const [first] = useState(chosen);
  const { byId } = useAssetsById([first]);
  const own = first === null || search.settled !== '' ? undefined : byId.get(first);
  const listed = own ? [own, ...page.filter(({ id }) => id !== own.id)] : page;
  const assets = listed.filter(({ path }) => leaveOut === undefined || !path.includes(leaveOut));
  return (
    <SearchedPick
      {...list}
      options={assets.map(({ id, name, title }) => ({
        value: id,
        label: name,
        detail: title === name ? undefined : title,
      }))}
      found={found}
      search={search}
      onChoose={(id) => onChoose(assets.find((asset) => asset.id === id)!)}
    />
  );
}
