import { formatValue } from '../format/format';
import type { Scene } from '../drawing/scene';
import { tankScene } from '../drawing/tankScene';
import { ONE_VALUE } from './oneValue';
import { onSharedScale, scalesAlike } from './onSharedScale';
import type { ReadoutValue } from './readoutValues';
import type { ValuesData } from './valuesData';
import type { ReadoutFormOf } from './readoutForm';
import { DEFAULT_SCALE, scaleSchema, type ScaleChoice } from '../board/scaleChoice';
import { gridOf } from './scene/grid';
import { stateLine } from './scene/stateLine';
import { isThin } from './stateWords';
import { TEXT, wrapped, written } from './scene/words';

const WIDEST = 180;

interface Choices {
  readonly scale: ScaleChoice;
}

/** A vessel filled up to its value. */
export const tank: ReadoutFormOf<Choices, ValuesData<Choices>> = {
  ...ONE_VALUE,
  fields: { scale: scaleSchema.default({ ...DEFAULT_SCALE }) },
  defaults: { scale: DEFAULT_SCALE },
  label: 'Tank',
  columns: { one: 3, many: 6 },
  halfOnPhone: true,
  alike: scalesAlike,
  scene: (data, { width }) =>
    gridOf(
      data.values.map((part) => ({ key: part.key, scene: one(data, part, Math.min(width, WIDEST)) })),
      width,
      WIDEST,
    ),
};

function one(data: ValuesData<Choices>, part: ReadoutValue, width: number): Scene {
  const { values, readout, decimals } = data;
  const scene = tankScene(onSharedScale(data, part));
  const value = formatValue(part.value, part.unit, decimals);
  const name = values.length > 1 ? wrapped(part.name, TEXT.name, width) : [];
  const middle = { x: width / 2, anchor: 'middle', ink: 'ink' } as const;
  const named = scene.height + TEXT.figure.lineHeight + name.length * TEXT.name.lineHeight + 4;
  const state = stateLine(part, readout.band, decimals, named, width);
  return {
    width,
    height: named + state.height,
    marks: [
      { kind: 'group', key: 'tank', x: (width - scene.width) / 2, y: 0, marks: scene.marks },
      written([value], {
        key: 'value',
        y: scene.height + 2,
        style: TEXT.figure,
        ...middle,
        ink: isThin(part) ? 'ink3' : 'ink',
      }),
      ...(name.length > 0
        ? [
            written(name, {
              key: 'name',
              y: scene.height + 4 + TEXT.figure.lineHeight,
              style: TEXT.name,
              ...middle,
            }),
          ]
        : []),
      ...state.marks,
    ],
    hits: [],
    spoken: `${part.name} ${scene.spoken}`,
  };
}
