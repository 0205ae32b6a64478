import type { TargetBand } from '../bands/targetBand';
import type { ScaleChoice } from '../board/scaleChoice';
import { displayDivisor, displayUnit, dividedBand } from '../format/displayScale';
import type { BaseReadout } from '../board/choices';
import type { ReadoutValue } from './readoutValues';

/** Further fields in the unit of the values, which some forms have. */
interface OnScale {
  readonly scale: ScaleChoice;
  readonly secondBand: TargetBand | null;
}

const scaledDown = (scale: ScaleChoice, by: number): ScaleChoice => ({
  ...scale,
  ends: scale.ends && [scale.ends[0] / by, scale.ends[1] / by],
});

/** A readout and its values scaled for display: in units, thousands or millions. */
export function scaledForDisplay<R extends BaseReadout & Partial<OnScale>>(
  readout: R,
  values: readonly ReadoutValue[],
): { readonly readout: R; readonly values: readonly ReadoutValue[] } {
  const by = displayDivisor(readout.display);
  if (by === 1) return { readout, values };
  const divide = (value: number | null): number | null => (value === null ? null : value / by);
  return {
    readout: {
      ...readout,
      band: dividedBand(readout.band, by),
      ...(readout.secondBand && { secondBand: dividedBand(readout.secondBand, by) }),
      ...(readout.scale && { scale: scaledDown(readout.scale, by) }),
    },
    values: values.map((each) => ({
      ...each,
      value: divide(each.value),
      previous: divide(each.previous),
      unit: displayUnit(each.unit, readout.display),
    })),
  };
}
