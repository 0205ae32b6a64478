import { difference } from '../stats/decimal';
import { distanceOf, levelOf, type TargetBand } from './targetBand';

/**
 * How far a value lies on the worse side of its target, in the unit of the band; below zero on the better side. Without
 * a target the end of Clear stands for it. Where either side of the target is worse, every distance from it counts.
 *
 * @example shortfallOf({ direction: 'higher', caution: 90, breach: 80, target: 95 }, 85) // => 10
 */
export function shortfallOf(band: TargetBand, value: number): number {
  switch (band.direction) {
    case 'higher':
      return difference(band.target ?? band.caution, value);
    case 'lower':
      return difference(value, band.target ?? band.caution);
    case 'inside':
      if (band.target !== null) return Math.abs(difference(value, band.target));
      return Math.max(difference(value, band.clearHigh), difference(band.clearLow, value));
    case 'cuts':
      if (levelOf(band, value) === 'clear')
        return band.target === null ? 0 : Math.abs(difference(value, band.target));
      return distanceOf(band, value)?.by ?? 0;
  }
}
