import { normalised, type Asset, type Normalise } from '@vivid-beacon/core';
import type { TrendSeries } from '../charts/trendScene';

const NO_ATTRIBUTES: Asset['attributes'] = {};

/** Lines put into proportion; those that cannot be are named. */
export function proportioned(
  series: readonly TrendSeries[],
  by: Normalise | null,
  assets: ReadonlyMap<string, Asset>,
): { readonly series: readonly TrendSeries[]; readonly leftOut: readonly string[] } {
  if (by === null) return { series, leftOut: [] };
  const leftOut: string[] = [];
  const kept = series.flatMap((each): TrendSeries[] => {
    const attributes = assets.get(each.assetId ?? '')?.attributes ?? NO_ATTRIBUTES;
    const made = normalised(each.answer.v, each.answer.unit, by, attributes);
    if (!made) {
      const why = by.by === 'first' ? 'no first value above zero' : `no ${by.name}`;
      leftOut.push(`${each.name} (${why})`);
      return [];
    }
    return [{ ...each, answer: { ...each.answer, ...made } }];
  });
  return { series: kept, leftOut };
}
