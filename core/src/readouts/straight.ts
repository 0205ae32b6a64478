import { lampMark } from '../drawing/lampScene';
import { MIN_STRAIGHT_WIDTH, straightScene } from '../drawing/straightScene';
import { ONE_VALUE } from './oneValue';
import { onSharedScale, scalesAlike } from './onSharedScale';
import type { ValuesData } from './valuesData';
import type { ReadoutFormOf } from './readoutForm';
import { DEFAULT_SCALE, scaleSchema, type ScaleChoice } from '../board/scaleChoice';
import { rowsOf } from './scene/rows';
import { isLit, stateWords } from './stateWords';

const WIDEST = 420;

interface Choices {
  readonly scale: ScaleChoice;
}

/** A straight gauge: bars of several values under one scale. */
export const straight: ReadoutFormOf<Choices, ValuesData<Choices>> = {
  ...ONE_VALUE,
  fields: { scale: scaleSchema.default({ ...DEFAULT_SCALE }) },
  defaults: { scale: DEFAULT_SCALE },
  label: 'Straight gauge',
  columns: { one: 4, many: 6 },
  alike: scalesAlike,
  scene: (data, { width }) => {
    const { values, readout, decimals } = data;
    const own = straightWidth(width);
    return rowsOf(
      values.map((part) => ({
        part,
        left: isLit(part, readout.band) ? lampMark(part.level, 'lamp', 1, 1, 22) : undefined,
        second:
          readout.band || part.level === 'nodata' ? stateWords(part, readout.band, decimals) : undefined,
        middle: own < MIN_STRAIGHT_WIDTH ? undefined : straightScene(onSharedScale(data, part), own),
      })),
      decimals,
      width,
    );
  },
};

/** Width of the gauge in a row of the given width, px. */
export const straightWidth = (width: number): number =>
  Math.max(0, Math.min(WIDEST, Math.round(width * (width < WIDEST ? 0.38 : 0.5))));
