import { wordsOf, type Asset, type PageOf } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { countAssets, factsOfAssets, pageOfAssets, type AssetFilter } from './searchSql';

/** What an address asks for. */
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

/** A page of assets, with what hangs on each where that is asked for. */
export async function listPage(
  db: Reader,
  { ids, parentId, search, title, under, facts, offset, limit }: AssetListAsk,
  now: number,
): Promise<PageOf<Asset>> {
  const filter: AssetFilter = {
    ids: ids?.split(','),
    parentId: parentId === 'none' ? null : parentId,
    under,
    words: wordsOf(search),
    inTitle: wordsOf(title),
  };
  const items = await pageOfAssets(db, filter, { offset, limit });
  const total = items.length < limit && offset === 0 ? items.length : await countAssets(db, filter);
  if (!facts) return { items, total };
  const found = await factsOfAssets(
    db,
    items.map(({ id }) => id),
    now,
  );
  return { items: items.map((asset) => ({ ...asset, ...found.get(asset.id) })), total };
}
