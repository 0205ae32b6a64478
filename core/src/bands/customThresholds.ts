import {
  MAX_THRESHOLDS,
  sectorsOf,
  type CustomThresholds,
  type TargetBand,
  type ValueLevel,
} from './targetBand';

/** A band as equivalent custom thresholds, as a starting point for changes. */
export function customThresholdsOf(band: TargetBand): CustomThresholds {
  if (band.direction === 'cuts') return { cuts: band.cuts, levels: band.levels };
  const sectors = sectorsOf(band, -Infinity, Infinity);
  return { cuts: sectors.slice(1).map(({ from }) => from), levels: sectors.map(({ level }) => level) };
}

/**
 * Adds a threshold in the middle of the widest section; both halves keep the level of the section.
 *
 * @param low,high ends of the range shown, in the unit of the thresholds; thresholds outside it stay as they
 * are.
 * @returns the same thresholds if there are {@link MAX_THRESHOLDS} already.
 */
export function withThresholdAdded(
  { cuts, levels }: CustomThresholds,
  low: number,
  high: number,
): CustomThresholds {
  if (cuts.length >= MAX_THRESHOLDS) return { cuts, levels };
  const ends = [Math.min(low, cuts[0]), ...cuts, Math.max(high, cuts[cuts.length - 1])];
  const width = (i: number): number => ends[i + 1] - ends[i];
  const widest = levels.reduce((best, _, i) => (width(i) > width(best) ? i : best), 0);
  const cut = Number((ends[widest] + width(widest) / 2).toPrecision(6));
  return {
    cuts: [...cuts.slice(0, widest), cut, ...cuts.slice(widest)],
    levels: [...levels.slice(0, widest + 1), ...levels.slice(widest)],
  };
}

/** Removes a threshold; the section above joins the one below. The last threshold stays. */
export function withThresholdRemoved({ cuts, levels }: CustomThresholds, at: number): CustomThresholds {
  if (cuts.length <= 1) return { cuts, levels };
  return { cuts: cuts.filter((_, i) => i !== at), levels: levels.filter((_, i) => i !== at + 1) };
}

/** Moves a threshold. It may be out of order afterwards; checkBand reports that. */
export function withThresholdAt(
  { cuts, levels }: CustomThresholds,
  at: number,
  value: number,
): CustomThresholds {
  return { cuts: cuts.map((cut, i) => (i === at ? value : cut)), levels };
}

/** Sets the level of one section. */
export function withSectionLevel(
  { cuts, levels }: CustomThresholds,
  part: number,
  level: ValueLevel,
): CustomThresholds {
  return { cuts, levels: levels.map((each, i) => (i === part ? level : each)) };
}
