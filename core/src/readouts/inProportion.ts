import { normalised } from '../compare/normalise';
import type { Asset } from '../api/assets';
import type { Normalise } from './trendChoices';
import type { TrendSeries } from '../drawing/trend/trendLayout';

const NO_ATTRIBUTES: Asset['attributes'] = {};

/** Normalises the lines; those that cannot be normalised are named in `leftOut`. */
export function inProportion(
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
    return [{ ...each, answer: { ...each.answer, ...made, thin: [] } }];
  });
  return { series: kept, leftOut };
}
