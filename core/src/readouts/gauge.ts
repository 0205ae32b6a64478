import { formatValue } from '../format/format';
import { gaugeScene } from '../drawing/gaugeScene';
import type { Scene } from '../drawing/scene';
import { sharedScale } from '../drawing/valueAxis';
import { scalesAlike } from './onSharedScale';
import { ONE_VALUE } from './oneValue';
import type { ReadoutValue } from './readoutValues';
import type { ValuesData } from './valuesData';
import type { ReadoutFormOf } from './readoutForm';
import { DEFAULT_ROUND_SCALE, roundScaleSchema, type RoundScale } from '../board/scaleChoice';
import { gridOf } from './scene/grid';
import { stateLine } from './scene/stateLine';
import { TEXT, wrapped, written } from './scene/words';

/** Largest width of a gauge, px. */
export const MAX_GAUGE_WIDTH = 280;
/** Smallest width of gauges side by side, px. */
export const MIN_MULTIPLE_WIDTH = 128;
const LETTERS = 'ABCDEFGHIJKLMNOPQRST';

interface Choices {
  readonly scale: RoundScale;
}

/** A round gauge: a beam on a scale with the sectors of its band. */
export const gauge: ReadoutFormOf<Choices, ValuesData<Choices>> = {
  ...ONE_VALUE,
  fields: { scale: roundScaleSchema.default({ ...DEFAULT_ROUND_SCALE }) },
  defaults: { scale: DEFAULT_ROUND_SCALE },
  label: 'Gauge',
  columns: { one: 3, many: 6 },
  halfOnPhone: true,
  smallPreview: true,
  alike: scalesAlike,
  scene: (data, { width }) => {
    const { values, readout } = data;
    if (!readout.groupBy) return together(data, width);
    const columns = Math.max(1, Math.min(values.length, Math.floor(width / MIN_MULTIPLE_WIDTH)));
    const each = Math.floor(width / columns) - 12;
    return gridOf(
      values.map((part) => ({ key: part.key, scene: multiple(data, part, each) })),
      width,
      MIN_MULTIPLE_WIDTH,
    );
  },
};

/** Options of a gauge for one value; values side by side share the scale. */
export function gaugeOptions(
  { values, decimals, readout }: ValuesData<Choices>,
  part: ReadoutValue,
): Parameters<typeof gaugeScene>[0] {
  const { value, level, previous, unit } = part;
  return {
    value,
    level,
    band: readout.band,
    reference: previous,
    unit,
    decimals,
    scale: readout.groupBy ? sharedScale(readout.scale, readout.band, values) : readout.scale,
    others: readout.groupBy
      ? []
      : values
          .slice(1)
          .flatMap((other, i) => (other.value === null ? [] : [{ mark: markOf(i + 1), value: other.value }])),
  };
}

/** The mark of a value on a shared gauge: the beam for the first, letters for the others. */
export const markOf = (i: number): string => (i === 0 ? 'Beam' : LETTERS[i]);

/** One gauge; the first value has the beam, the others have lettered marks with a legend under the gauge. */
function together(data: ValuesData<Choices>, width: number): Scene {
  const { values, readout, decimals } = data;
  const [first] = values;
  const scene = gaugeScene(gaugeOptions(data, first), Math.min(width, MAX_GAUGE_WIDTH));
  const state = stateLine(first, readout.band, decimals, scene.height + 4, width);
  const legend =
    values.length < 2
      ? []
      : wrapped(
          values
            .map(({ name, value, unit }, i) => `${markOf(i)} ${name} ${formatValue(value, unit, decimals)}`)
            .join('; '),
          TEXT.second,
          width,
        );
  const below = scene.height + 8 + state.height;
  return {
    width,
    height: below + legend.length * TEXT.second.lineHeight,
    marks: [
      { kind: 'group', key: 'gauge', x: (width - scene.width) / 2, y: 0, marks: scene.marks },
      ...state.marks,
      ...(legend.length > 0
        ? [
            written(legend, {
              key: 'legend',
              x: width / 2,
              y: below,
              style: TEXT.second,
              ink: 'ink' as const,
              anchor: 'middle' as const,
            }),
          ]
        : []),
    ],
    hits: [],
    spoken: scene.spoken,
  };
}

/** One of several gauges, with its name under it. */
function multiple(data: ValuesData<Choices>, part: ReadoutValue, width: number): Scene {
  const scene = gaugeScene(gaugeOptions(data, part), Math.min(width, MAX_GAUGE_WIDTH));
  const name = wrapped(part.name, TEXT.name, width);
  const named = scene.height + name.length * TEXT.name.lineHeight;
  const state = stateLine(part, data.readout.band, data.decimals, named, width);
  return {
    width,
    height: named + state.height,
    marks: [
      { kind: 'group', key: 'gauge', x: (width - scene.width) / 2, y: 0, marks: scene.marks },
      written(name, {
        key: 'name',
        x: width / 2,
        y: scene.height,
        style: TEXT.name,
        ink: 'ink',
        anchor: 'middle',
      }),
      ...state.marks,
    ],
    hits: [],
    spoken: `${part.name} ${scene.spoken}`,
  };
}
