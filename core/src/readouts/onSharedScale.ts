import type { Level, TargetBand } from '../bands/targetBand';
import type { ScaleChoice } from '../board/scaleChoice';
import { sharedScale } from '../drawing/valueAxis';
import type { ReadoutValue } from './readoutValues';
import type { ValuesData } from './valuesData';

/** A value as it is drawn on a scale. */
interface OnScale {
  readonly value: number | null;
  readonly level: Level;
  readonly band: TargetBand | null;
  readonly reference: number | null;
  readonly decimals: number;
  readonly scale: ScaleChoice;
}

/** Drawing options of one value on the scale that all values share, so that their bands line up. */
export const onSharedScale = (
  { values, decimals, readout }: ValuesData<{ readonly scale: ScaleChoice }>,
  { value, level, previous }: ReadoutValue,
): OnScale => ({
  value,
  level,
  band: readout.band,
  reference: previous,
  decimals,
  scale: sharedScale(readout.scale, readout.band, values),
});

/** Copies whose values all have one scale. */
export function scalesAlike<Choices extends { readonly scale: ScaleChoice }>(
  all: readonly ValuesData<Choices>[],
): readonly ValuesData<Choices>[] {
  const values = all.flatMap((data) => data.values);
  return all.map((data) => {
    const { readout } = data;
    return { ...data, readout: { ...readout, scale: sharedScale(readout.scale, readout.band, values) } };
  });
}
