import { ADDS_UP } from '../domain/metric';
import { ringOpacity, ringScene, shareText } from '../drawing/ringScene';
import type { Scene } from '../drawing/scene';
import { formatNumber } from '../format/format';
import { ringOf, type Ring } from '../stats/shares';
import { NO_CHOICES, ONE_VALUE } from './oneValue';
import type { ReadoutValue } from './readoutValues';
import { valuesData, type ValuesData } from './valuesData';
import { isProblem } from './readoutData';
import type { ReadoutFormOf } from './readoutForm';
import { rowsOf } from './scene/rows';
import { TEXT, written } from './scene/words';

export interface RingData extends ValuesData {
  readonly ring: Ring<ReadoutValue>;
  readonly unit: string;
}

/** Largest width of a ring, px. */
export const MAX_RING_WIDTH = 230;
const GAP = 16;
const LIST = 200;

/** Shares of a total as a ring. */
export const ring: ReadoutFormOf<object, RingData> = {
  ...ONE_VALUE,
  ...NO_CHOICES,
  label: 'Proportion ring',
  splits: true,
  columns: { one: 5, many: 5 },
  data: (inputs, answers) => {
    const data = valuesData(inputs, answers);
    if (isProblem(data)) return data;
    const units = [...new Set(data.values.map(({ unit }) => unit))];
    // Means, extremes and ratios do not add up to a whole, nor do kilograms and hours.
    const adds = data.readout.measures.every(({ per, summary }) => !per && ADDS_UP.has(summary));
    const found = units.length === 1 && adds ? ringOf(data.values) : null;
    if (found) return { ...data, ring: found, unit: units[0] };
    return {
      problem: {
        title: 'No whole to have shares of',
        text:
          units.length > 1
            ? `Shares need amounts of one unit; these are in ${units.map((unit) => unit || 'none').join(' and ')}.`
            : 'Shares need amounts that add up, such as a sum or an increase, and none below zero.',
      },
    };
  },
  scene: (data, { width, focus }) => {
    const { decimals, unit } = data;
    const size = Math.min(width, MAX_RING_WIDTH);
    const total = { text: formatNumber(data.ring.total, decimals), unit };
    const drawn = ringScene({ ring: data.ring, focused: focusedKey(data, focus), total }, size);
    const beside = width - size - GAP >= LIST;
    const list = sharesList(data, beside ? width - size - GAP : width);
    const height = beside ? Math.max(size, list.height) : size + GAP + list.height;
    return {
      width,
      height,
      marks: [
        {
          kind: 'group',
          key: 'ring',
          x: beside ? 0 : (width - size) / 2,
          y: beside ? (height - size) / 2 : 0,
          marks: drawn.marks,
        },
        {
          kind: 'group',
          key: 'list',
          x: beside ? size + GAP : 0,
          y: beside ? (height - list.height) / 2 : size + GAP,
          marks: list.marks,
        },
      ],
      hits: [],
      spoken: drawn.spoken,
    };
  },
};

/** Key of the focused asset's part. */
export const focusedKey = ({ ring: { parts } }: RingData, focus: string | null): string | null =>
  parts.find(({ of }) => focus !== null && of.assetId === focus)?.of.key ?? null;

/** Each share with its colour, its name and its amount. */
function sharesList({ ring: { parts, others }, decimals }: RingData, width: number): Scene {
  const rows = rowsOf(
    parts.map(({ of, share }, i) => ({
      part: of,
      second: shareText(share),
      left: {
        kind: 'rect',
        key: 'colour',
        x: 6,
        y: 2,
        width: 12,
        height: 20,
        fill: 'sea',
        opacity: ringOpacity(i),
      },
    })),
    decimals,
    width,
  );
  if (!others) return rows;
  const words = `${others.count} others, ${shareText(others.share)}`;
  return {
    ...rows,
    height: rows.height + TEXT.second.lineHeight + 4,
    marks: [
      ...rows.marks,
      written([words], { key: ' others', x: 0, y: rows.height + 4, style: TEXT.second, ink: 'ink2' }),
    ],
  };
}
