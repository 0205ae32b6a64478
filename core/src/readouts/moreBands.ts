import * as yup from 'yup';
import { bandSchema, type TargetBand } from '../bands/targetBand';
import type { BaseReadout } from '../board/choices';
import { MAX_MEASURES } from '../domain/measure';
import { orNull } from '../schemas/shape';

/** Target bands of the measures after the first, in order; of those without an entry there is none. */
export const moreBandsField = yup
  .array(orNull(bandSchema))
  .max(MAX_MEASURES - 1)
  .default([]);

/** A readout that shows several measures for each group, each with a target band of its own. */
export interface WithMoreBands {
  readonly moreBands: readonly (TargetBand | null)[];
}

export const hasMoreBands = (readout: object): readout is WithMoreBands => 'moreBands' in readout;

/**
 * The target band of a measure: of groups with several measures its own, otherwise that of the readout.
 * @param at index of the measure.
 */
export function bandOfMeasure(readout: BaseReadout & Partial<WithMoreBands>, at: number): TargetBand | null {
  if (at === 0 || readout.groupBy === null || readout.moreBands === undefined) return readout.band;
  return readout.moreBands[at - 1] ?? null;
}

/** The bands with that of one measure changed; `at` counts from 1. */
export function withBandAt(
  bands: WithMoreBands['moreBands'],
  at: number,
  band: TargetBand | null,
): (TargetBand | null)[] {
  return Array.from({ length: Math.max(bands.length, at) }, (_, i) =>
    i === at - 1 ? band : (bands[i] ?? null),
  );
}
