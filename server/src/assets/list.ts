import { searchWords, type Asset, type PageOf } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { factsOfAssets, pageOfAssets, type AssetFilter } from './searchSql';

/** The query parameters. */
interface AssetListAsk {
  readonly ids?: string;
  readonly parentId?: string;
  readonly under?: string;
  readonly search?: string;
  readonly title?: string;
  readonly facts: boolean;
  readonly offset: number;
  readonly limit: number;
}

/** A page of assets, with their dependents on request. */
export async function listAssetPage(
  db: Reader,
  { ids, parentId, search, title, under, facts, offset, limit }: AssetListAsk,
  now: number,
): Promise<PageOf<Asset>> {
  const filter: AssetFilter = {
    ids: ids?.split(','),
    parentId: parentId === 'none' ? null : parentId,
    under,
    words: searchWords(search),
    inTitle: searchWords(title),
  };
  const { items, total } = await pageOfAssets(db, filter, { offset, limit });
  if (!facts) return { items, total };
  const found = await factsOfAssets(
    db,
    items.map(({ id }) => id),
    now,
  );
  return { items: items.map((asset) => ({ ...asset, ...found.get(asset.id) })), total };
}
