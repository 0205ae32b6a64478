import { customThresholdsOf, type TargetBand } from '@vivid-beacon/core';

/** A first band around what is usual: Clear to the 75th percentile of past values, Caution to the 95th. */
export function firstBand(values: readonly number[], direction: TargetBand['direction']): TargetBand {
  const at = (share: number): number =>
    values.length === 0 ? 0 : values[Math.round((values.length - 1) * share)];
  const [low, high] = [at(0.02), at(0.98)];
  const digits = Math.max(
    0,
    2 - Math.floor(Math.log10(Math.max(1e-6, Math.abs(high - low) || Math.abs(high) || 1))),
  );
  const round = (x: number): number => Number(x.toFixed(Math.min(9, digits)));
  switch (direction) {
    case 'lower':
      return { direction, caution: round(at(0.75)), breach: round(at(0.95)), target: round(at(0.5)) };
    case 'higher':
      return { direction, caution: round(at(0.25)), breach: round(at(0.05)), target: round(at(0.5)) };
    case 'inside':
      return {
        direction,
        breachLow: round(at(0.03)),
        clearLow: round(at(0.15)),
        clearHigh: round(at(0.85)),
        breachHigh: round(at(0.97)),
        target: round(at(0.5)),
      };
    case 'cuts': {
      const inside = firstBand(values, 'inside');
      return { direction, ...customThresholdsOf(inside), target: inside.target };
    }
  }
}
