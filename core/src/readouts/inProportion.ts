import { inPercentOfFirst } from '../compare/normalise';
import type { Normalise } from './trendChoices';
import type { TrendSeries } from '../drawing/trend/trendLayout';

/** Normalises the lines; those that cannot be normalised are named in `leftOut`. */
export function inProportion(
  series: readonly TrendSeries[],
  by: Normalise | null,
): { readonly series: readonly TrendSeries[]; readonly leftOut: readonly string[] } {
  if (by === null) return { series, leftOut: [] };
  const leftOut: string[] = [];
  const kept = series.flatMap((each): TrendSeries[] => {
    const v = inPercentOfFirst(each.answer.v);
    if (v) return [{ ...each, answer: { ...each.answer, v, unit: '% of the first', thin: [] } }];
    leftOut.push(`${each.name} (no first value above zero)`);
    return [];
  });
  return { series: kept, leftOut };
}
