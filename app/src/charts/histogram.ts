import { bin } from 'd3-array';
import { levelOf, withThresholdAt, type Level, type TargetBand } from '@vivid-beacon/core';

export interface HistogramBar {
  readonly from: number;
  readonly to: number;
  readonly count: number;
  readonly level: Level;
}

/** Counts of values in steps of equal width over a scale, each with the level of its middle. */
export function histogramBars(
  values: readonly number[],
  low: number,
  high: number,
  steps: number,
  band: TargetBand,
): HistogramBar[] {
  const width = (high - low) / steps;
  const cuts = Array.from({ length: steps - 1 }, (_, i) => low + width * (i + 1));
  return bin<number, number>()
    .domain([low, high])
    .thresholds(cuts)(values)
    .map((each) => ({
      from: each.x0!,
      to: each.x1!,
      count: each.length,
      level: levelOf(band, (each.x0! + each.x1!) / 2),
    }));
}

/** Share of values on each level, 0 to 1. */
export function sharesByLevel(
  values: readonly number[],
  band: TargetBand,
): Record<'clear' | 'caution' | 'breach', number> {
  const shares = { clear: 0, caution: 0, breach: 0 };
  for (const value of values) {
    const level = levelOf(band, value);
    if (level !== 'nodata') shares[level] += 1 / values.length;
  }
  return shares;
}

/** The limits a person moves, in order of value, and how to move one without passing its neighbours. */
export interface BandLimit {
  readonly key: 'caution' | 'breach' | 'clearLow' | 'clearHigh' | 'breachLow' | 'breachHigh' | `cut${number}`;
  readonly name: string;
  readonly value: number;
}

export function bandLimits(band: TargetBand): BandLimit[] {
  if (band.direction === 'inside') {
    return [
      { key: 'breachLow', name: 'Lower start of Breach', value: band.breachLow },
      { key: 'clearLow', name: 'Lower end of Clear', value: band.clearLow },
      { key: 'clearHigh', name: 'Upper end of Clear', value: band.clearHigh },
      { key: 'breachHigh', name: 'Upper start of Breach', value: band.breachHigh },
    ];
  }
  if (band.direction === 'cuts') {
    return band.cuts.map((value, i) => ({ key: `cut${i}`, name: `Threshold ${i + 1}`, value }));
  }
  const caution: BandLimit = { key: 'caution', name: 'End of Clear', value: band.caution };
  const breach: BandLimit = { key: 'breach', name: 'Start of Breach', value: band.breach };
  return band.direction === 'lower' ? [caution, breach] : [breach, caution];
}

/** Moves a limit; it stops at its neighbours. */
export function withBandLimit(band: TargetBand, key: BandLimit['key'], value: number): TargetBand {
  const limits = bandLimits(band);
  const at = limits.findIndex((limit) => limit.key === key);
  const low = limits[at - 1]?.value ?? -Infinity;
  const high = limits[at + 1]?.value ?? Infinity;
  return limitAt(band, key, Math.min(high, Math.max(low, value)));
}

/** A limit set to a value as it is typed, in order or not. */
export function limitAt(band: TargetBand, key: BandLimit['key'], value: number): TargetBand {
  if (band.direction !== 'cuts') return { ...band, [key]: value } as TargetBand;
  return { ...band, ...withThresholdAt(band, Number(key.slice('cut'.length)), value) };
}
