import type { TrendMark } from '../../readouts/trendChoices';
import type { TrendSeries } from './trendLayout';

/** Value axes of one plot: left and right. Only one unit can be stacked. */
const axesOf = (mark: TrendMark): number => (mark === 'stacked' ? 1 : 2);

/**
 * The lines of a trend by plot: one plot while its units have an axis each, otherwise a small one for each unit, under one
 * another. Every line is in one of them.
 */
export function trendPanels(
  series: readonly TrendSeries[],
  mark: TrendMark,
): readonly (readonly TrendSeries[])[] {
  const units = [...new Set(series.map(({ answer }) => answer.unit))];
  if (units.length <= axesOf(mark)) return [series];
  return units.map((unit) => series.filter(({ answer }) => answer.unit === unit));
}
