import { MOST_CUTS, sectorsOf, type OwnCuts, type TargetBand, type ValueLevel } from './targetBand';

/** Any band as own cuts that judge the same way: to begin with what is there and go on from it. */
export function ownCutsOf(band: TargetBand): OwnCuts {
  if (band.direction === 'cuts') return { cuts: band.cuts, levels: band.levels };
  const sectors = sectorsOf(band, -Infinity, Infinity);
  return { cuts: sectors.slice(1).map(({ from }) => from), levels: sectors.map(({ level }) => level) };
}

/**
 * One cut more: in the middle of the widest part between two values; both halves keep the level of the part.
 *
 * @param low,high ends of what is looked at, in the unit of the cuts; cuts beyond them are left where they are.
 * @returns the same cuts where there are {@link MOST_CUTS} already.
 */
export function withCutAdded({ cuts, levels }: OwnCuts, low: number, high: number): OwnCuts {
  if (cuts.length >= MOST_CUTS) return { cuts, levels };
  const ends = [Math.min(low, cuts[0]), ...cuts, Math.max(high, cuts[cuts.length - 1])];
  const width = (i: number): number => ends[i + 1] - ends[i];
  const widest = levels.reduce((best, _, i) => (width(i) > width(best) ? i : best), 0);
  const cut = Number((ends[widest] + width(widest) / 2).toPrecision(6));
  return {
    cuts: [...cuts.slice(0, widest), cut, ...cuts.slice(widest)],
    levels: [...levels.slice(0, widest + 1), ...levels.slice(widest)],
  };
}

/** One cut less; the part above it joins the one below. The last cut stays. */
export function withCutRemoved({ cuts, levels }: OwnCuts, at: number): OwnCuts {
  if (cuts.length <= 1) return { cuts, levels };
  return { cuts: cuts.filter((_, i) => i !== at), levels: levels.filter((_, i) => i !== at + 1) };
}

/** A cut moved; it may be out of order afterwards, which the check of the band tells. */
export function withCutAt({ cuts, levels }: OwnCuts, at: number, value: number): OwnCuts {
  return { cuts: cuts.map((cut, i) => (i === at ? value : cut)), levels };
}

/** Another level for one part. */
export function withPartLevel({ cuts, levels }: OwnCuts, part: number, level: ValueLevel): OwnCuts {
  return { cuts, levels: levels.map((each, i) => (i === part ? level : each)) };
}
