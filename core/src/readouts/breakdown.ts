import * as yup from 'yup';
import { placed, type Scene } from '../drawing/scene';
import { shareText } from '../drawing/ringScene';
import { formatValue } from '../format/format';
import { BUCKETS } from '../time/buckets';
import { asked } from './ask';
import {
  BREAKDOWN_MARKS,
  breakdownData,
  breakdownRequests,
  breakdownsAlike,
  totalsBefore,
  type BreakdownChoices,
  type BreakdownData,
} from './breakdownData';
import { breakdownNote, partsList } from './breakdownList';
import { bars, shareRing, strip } from './breakdownMarks';
import { columnsOverTime } from './breakdownOverTime';
import { ONE_VALUE } from './oneValue';
import type { ReadoutFormOf } from './readoutForm';
import type { Slot } from './slots';
import type { Table } from './table';

const SLOTS: readonly Slot[] = [
  'summary',
  'metric',
  'window',
  'bucket',
  'group',
  'scope',
  'hours',
  'compare',
  'appearance',
];

/** What makes up a total: as a strip, a ring or bars, or as columns over time. */
export const breakdown: ReadoutFormOf<BreakdownChoices, BreakdownData> = {
  ...ONE_VALUE,
  label: 'Breakdown',
  slots: SLOTS,
  splits: true,
  columns: { one: 6, many: 6 },
  fields: {
    parts: asked(yup.string().oneOf(BREAKDOWN_MARKS).default('strip'), {
      label: 'Drawn as',
      words: {
        strip: 'a strip',
        ring: 'a ring',
        bars: 'columns side by side',
        overTime: 'columns over time',
        sharesOverTime: 'shares over time',
      },
    }),
    bucket: yup.string().oneOf(BUCKETS).nullable().default(null),
    without: yup.array(yup.string().max(400).required()).max(100).default([]),
  },
  defaults: { parts: 'strip', bucket: null, without: [] },
  requests: breakdownRequests,
  data: breakdownData,
  alike: breakdownsAlike,
  scene: (data, { width, height, focus }) => breakdownScene(data, { width, height, focus }),
  table: breakdownTable,
};

const BARS = 150;
const PLOT = 200;

interface Frame {
  readonly width: number;
  readonly height: number | null;
  readonly focus: string | null;
}

/** The drawing with its parts under it: each with its tone, which picks it, its amount and its share. */
export function breakdownScene(data: BreakdownData, { width, height, focus }: Frame): Scene {
  const list = partsList(data, width, focus);
  const room = height === null ? null : Math.max(60, height - list.height - 8);
  const plot = plotOf(data, width, room, focus);
  const below = placed(list, 'list', 0, plot.height + 8);
  return {
    width,
    height: plot.height + 8 + list.height,
    marks: [{ kind: 'group', key: 'plot', marks: plot.marks }, ...below.marks],
    hits: [...plot.hits, ...below.hits.map((hit) => ({ ...hit, key: hit.key.slice('list '.length) }))],
    spoken: breakdownWords(data),
  };
}

function plotOf(data: BreakdownData, width: number, height: number | null, focus: string | null): Scene {
  const { periods, readout } = data;
  if (periods) return columnsOverTime(data, periods, width, height ?? PLOT);
  if (readout.parts === 'bars') return bars(data, width, height ?? BARS, focus);
  return readout.parts === 'ring' ? shareRing(data, width, focus) : strip(data, width, focus);
}

function breakdownWords(data: BreakdownData): string {
  const { parts, total, unit, decimals } = data;
  const shares = parts
    .filter(({ share }) => share !== null)
    .map(({ name, share }) => `${name} ${shareText(share!)}`)
    .join(', ');
  return [`Together ${formatValue(total, unit, decimals)}: ${shares}.`, breakdownNote(data)]
    .filter((each) => each !== '')
    .join(' ');
}

/** Parts with amount, share and reference; over time a column for each period. */
function breakdownTable(data: BreakdownData): Table {
  const { parts, unit, periods } = data;
  if (periods) {
    const before = totalsBefore(data);
    const isCompared = before.some((total) => total !== null);
    return {
      columns: [
        { name: 'From', unit: '', isTime: true },
        { name: 'To', unit: '', isTime: true },
        ...parts.map(({ name }) => ({ name, unit })),
        ...(isCompared ? [{ name: 'Together, compared with', unit }] : []),
      ],
      rows: periods.start.map((start, i) => [
        start,
        periods.end[i],
        ...parts.map(({ course }) => course[i] ?? null),
        ...(isCompared ? [before[i] ?? null] : []),
      ]),
    };
  }
  return {
    columns: [
      { name: 'Part', unit: '' },
      { name: 'Amount', unit },
      { name: 'Share', unit: '%' },
      { name: 'Compared with', unit },
      { name: 'Coverage', unit: '%' },
    ],
    rows: parts.map(({ name, value, share, previous, of }) => [
      name,
      value,
      share === null ? null : share * 100,
      previous,
      of ? of.coverage * 100 : null,
    ]),
  };
}
