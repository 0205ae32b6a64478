import { sectorsOf, type Level, type TargetBand } from '../bands/targetBand';
import type { ScaleChoice } from '../board/scaleChoice';
import { formatGraduation, formatNumber } from '../format/format';
import { channelMarks } from './bandChannel';
import type { Mark, Scene } from './scene';
import { spokenValue } from './spokenValue';
import { valueAxis } from './valueAxis';

export interface TankOptions {
  readonly value: number | null;
  readonly level: Level;
  readonly band: TargetBand | null;
  readonly reference: number | null;
  readonly decimals: number;
  readonly scale: ScaleChoice;
}

const WIDTH = 138;
const HEIGHT = 176;
const TOP = 10;
const BOTTOM = HEIGHT - 10;
const LEFT = 52;
const VESSEL = 46;
const CHANNEL = LEFT + VESSEL + 6;

/** An upright gauge: a vessel filled to its value, with the band beside it. */
export function tankScene({ value, level, band, reference, decimals, scale }: TankOptions): Scene {
  const axis = valueAxis(scale, band, [value ?? NaN], [BOTTOM, TOP]);
  const { low, high, at } = axis;
  const inside = (x: number | null): x is number => x !== null && x >= low && x <= high;
  const known = value !== null && level !== 'nodata';
  const surface = value === null ? BOTTOM : at(value);
  const target = band?.target ?? null;
  const from = scale.reversed ? TOP : BOTTOM;
  const ticks = axis.ticks(5);
  const vessel: Mark[] = [
    {
      kind: 'rect',
      key: 'vessel',
      x: LEFT,
      y: TOP,
      width: VESSEL,
      height: BOTTOM - TOP,
      fill: 'well',
      stroke: 'ink',
      strokeWidth: 1.5,
    },
    {
      kind: 'rect',
      key: 'filling',
      x: LEFT + 1,
      y: Math.min(surface, from),
      width: VESSEL - 2,
      height: Math.abs(from - surface),
      fill: 'water',
    },
    {
      kind: 'path',
      key: 'ticks',
      d: ticks.map((tick) => `M${LEFT - 5} ${at(tick)}H${LEFT}`).join(''),
      stroke: 'ink2',
    },
    {
      kind: 'text',
      key: 'labels',
      words: ticks.map((tick) => ({ x: LEFT - 8, y: at(tick) + 4, text: formatGraduation(tick) })),
      face: 'medium',
      size: 12,
      ink: 'ink2',
      anchor: 'end',
    },
  ];
  if (band) {
    const channels = sectorsOf(band, low, high).map(({ from: a, to: b, level: sector }) => ({
      top: Math.min(at(a), at(b)),
      bottom: Math.max(at(a), at(b)),
      level: sector,
    }));
    vessel.push(...channelMarks(channels, CHANNEL, 'band'));
  }
  if (inside(target))
    vessel.push({ kind: 'path', key: 'target', d: `M${CHANNEL + 10} ${at(target)}l11 -6v12Z`, fill: 'ink' });
  if (inside(reference)) {
    const d = `M${CHANNEL - 1} ${at(reference)}l-9 -5v10Z`;
    vessel.push({ kind: 'path', key: 'reference', d, fill: 'sheet', stroke: 'ink', strokeWidth: 1.2 });
  }
  const waterLine: Mark = {
    kind: 'path',
    key: 'surface',
    d: `M${LEFT - 2} ${surface}H${CHANNEL + 9}`,
    stroke: 'ink',
    strokeWidth: 3,
  };
  return {
    width: WIDTH,
    height: HEIGHT,
    marks: [
      { kind: 'group', key: 'vessel', opacity: known ? 1 : 0.38, marks: vessel },
      ...(value === null ? [] : [known ? waterLine : { ...waterLine, opacity: 0.38 }]),
    ],
    hits: [],
    spoken: spokenValue(value === null ? null : formatNumber(value, decimals), level, band),
  };
}
