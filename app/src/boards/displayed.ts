import { displayDivisor, displayUnit, dividedBand, type Readout } from '@vivid-beacon/core';
import type { Part } from './parts';

/** A readout and its values as they are shown: in units, thousands or millions. */
export function displayed(
  readout: Readout,
  parts: readonly Part[],
): { readout: Readout; parts: readonly Part[] } {
  const by = displayDivisor(readout.display);
  if (by === 1) return { readout, parts };
  const divide = (value: number | null): number | null => (value === null ? null : value / by);
  return {
    readout: {
      ...readout,
      band: dividedBand(readout.band, by),
      secondBand: dividedBand(readout.secondBand, by),
      scale: {
        ...readout.scale,
        ends: readout.scale.ends && [readout.scale.ends[0] / by, readout.scale.ends[1] / by],
      },
    },
    parts: parts.map((part) => ({
      ...part,
      value: divide(part.value),
      previous: divide(part.previous),
      unit: displayUnit(part.unit, readout.display),
    })),
  };
}
