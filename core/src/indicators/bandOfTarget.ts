import type { Direction, TargetBand } from '../bands/targetBand';
import type { Judge } from './definition';

/**
 * The band for shares of a target, in percent.
 *
 * Short of p % means: further from the target, on its bad side, than (100 − p) % of its size |T|. So 95 % of
 * a target of −100 is −105 where higher is better, not the easier −95. A target of 0 has no size: it is
 * reached, or it is Breach. Common practice for positive targets; for others our own rule, no source.
 */
function bandOfShares(direction: Direction, target: number, clear: number, caution: number): TargetBand {
  const down = (percent: number): number => awayFrom(target, percent - 100);
  const up = (percent: number): number => awayFrom(target, 100 - percent);
  switch (direction) {
    case 'higher':
      return { direction, caution: down(clear), breach: down(caution), target };
    case 'lower':
      return { direction, caution: up(clear), breach: up(caution), target };
    case 'inside':
      return {
        direction,
        clearLow: down(clear),
        clearHigh: up(clear),
        breachLow: down(caution),
        breachHigh: up(caution),
        target,
      };
  }
}

/**
 * A target plus a percentage of its size |T|. Rounded to what a person would type: 95 % of 0.3 is 0.285, not
 * 0.28500000000000003.
 */
function awayFrom(target: number, percent: number): number {
  const off = Number(((Math.abs(target) * percent) / 100).toPrecision(12));
  return Number((target + off).toPrecision(12));
}

/** The band that gives a value its level, for the current target; null if a target is needed and missing. */
export function bandOfJudge(judge: Judge, target: number | null): TargetBand | null {
  if (judge.kind === 'limits') return { ...judge.band, target: target ?? judge.band.target };
  if (target === null) return null;
  if (judge.kind === 'target') return bandOfShares(judge.direction, target, judge.clear, judge.caution);
  const cuts = judge.cuts.map((percent) => awayFrom(target, percent - 100));
  return { direction: 'cuts', cuts, levels: judge.levels, target };
}
