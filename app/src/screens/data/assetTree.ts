import type { Asset, Metric } from '@vivid-beacon/core';
import { feedRank } from './feedWords';

/** One line of the asset tree. */
export interface TreeRow {
  readonly asset: Asset;
  readonly depth: number;
  readonly children: number;
  readonly metrics: number;
  /** Feeds at or below that need a look. */
  readonly troubled: number;
}

/**
 * The tree as lines, children under their parents. With a search, assets that match and what stands above
 * them; else children of closed assets are left out.
 */
export function treeRows(
  assets: readonly Asset[],
  metrics: readonly Metric[],
  open: ReadonlySet<string>,
  search: string,
): TreeRow[] {
  const children = new Map<string | null, Asset[]>();
  for (const asset of assets) {
    const list = children.get(asset.parentId);
    if (list) list.push(asset);
    else children.set(asset.parentId, [asset]);
  }
  const own = new Map<string, Metric[]>();
  for (const metric of metrics) own.set(metric.assetId, [...(own.get(metric.assetId) ?? []), metric]);
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const matches = (asset: Asset): boolean => {
    // By beginnings of words: "2" finds Ironer 2, not a rated speed of 32, nor what was overhauled in 2026.
    const named = tokensOf(`${asset.name} ${asset.kind}`);
    const facts = tokensOf(Object.entries(asset.attributes).flat().join(' '));
    return words.every(
      (word) =>
        named.some((token) => token.startsWith(word)) ||
        facts.some((token) => (IS_NUMBER.test(word) ? token === word : token.startsWith(word))),
    );
  };
  const rows: TreeRow[] = [];
  const visit = (asset: Asset, depth: number): { shown: boolean; troubled: number } => {
    const at = rows.length;
    const below = children.get(asset.id) ?? [];
    const mine = own.get(asset.id) ?? [];
    rows.push({ asset, depth, children: below.length, metrics: mine.length, troubled: 0 });
    let troubled = mine.filter((metric) => feedRank(metric) === 0).length;
    let any = false;
    for (const child of below) {
      const found = visit(child, depth + 1);
      troubled += found.troubled;
      any ||= found.shown;
    }
    const shown = words.length === 0 || any || matches(asset);
    if (!shown) rows.length = at;
    else {
      if (words.length === 0 && !open.has(asset.id)) rows.length = at + 1;
      rows[at] = { ...rows[at], troubled };
    }
    return { shown, troubled };
  };
  for (const plant of children.get(null) ?? []) visit(plant, 0);
  return rows;
}

const IS_NUMBER = /^\d+$/;

function tokensOf(text: string): string[] {
  return text.toLowerCase().split(/[^\p{L}\p{N}.]+/u);
}

/** Names from the plant down to an asset. */
export function pathOf(asset: Asset, assets: readonly Asset[]): string[] {
  const byId = new Map(assets.map((each) => [each.id, each]));
  const names: string[] = [];
  for (let at: Asset | undefined = asset; at; at = at.parentId === null ? undefined : byId.get(at.parentId)) {
    names.unshift(at.name);
  }
  return names;
}
