import type { DisplayScale } from '../board/choices';
import type { TargetBand } from '../bands/targetBand';

const DIVISOR: Readonly<Record<DisplayScale, number>> = { units: 1, thousands: 1e3, millions: 1e6 };

/**
 * Divisor of a value before it is shown.
 * @example displayDivisor('thousands') // => 1000
 */
export function displayDivisor(display: DisplayScale): number {
  return DIVISOR[display];
}

/** "kWh" shown in thousands is "thousand kWh"; a plain number "thousand". */
export function displayUnit(unit: string, display: DisplayScale): string {
  const word = { units: '', thousands: 'thousand', millions: 'million' }[display];
  return [word, unit].filter(Boolean).join(' ');
}

/** A band with its limits and target divided, for a scale in thousands or millions. */
export function dividedBand(band: TargetBand | null, by: number): TargetBand | null {
  if (!band || by === 1) return band;
  const target = band.target === null ? null : band.target / by;
  if (band.direction === 'inside') {
    const { clearLow, clearHigh, breachLow, breachHigh } = band;
    return {
      direction: 'inside',
      clearLow: clearLow / by,
      clearHigh: clearHigh / by,
      breachLow: breachLow / by,
      breachHigh: breachHigh / by,
      target,
    };
  }
  if (band.direction === 'cuts') return { ...band, cuts: band.cuts.map((cut) => cut / by), target };
  return { ...band, caution: band.caution / by, breach: band.breach / by, target };
}
