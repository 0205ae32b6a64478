import * as yup from 'yup';
import { timeTicks } from '../drawing/trend/trendGeometry';
import { placed, type HitRegion, type Mark, type Scene } from '../drawing/scene';
import { ringOpacity, shareText } from '../drawing/ringScene';
import { textWidth } from '../drawing/textWidth';
import { valueAxis } from '../drawing/valueAxis';
import { formatGraduation, formatNumber, formatValue } from '../format/format';
import { stackedColumns } from '../stats/stacked';
import { BUCKETS } from '../time/buckets';
import { asked } from './ask';
import {
  BREAKDOWN_MARKS,
  breakdownData,
  breakdownRequests,
  breakdownsAlike,
  heightsOf,
  reachOf,
  type BreakdownChoices,
  type BreakdownData,
  type BreakdownPart,
  type BreakdownPeriods,
} from './breakdownData';
import { baseWords, changeWords } from './changeWords';
import { ONE_VALUE } from './oneValue';
import type { ReadoutFormOf } from './readoutForm';
import { TEXT, wrapped, written } from './scene/words';
import type { Slot } from './slots';
import { isThin, unfinishedWords } from './stateWords';
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

/** What makes up a total: as a strip, as bars, or as columns over time. */
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

/** Parts of the keys of hit regions that say what a tap does. */
export const BREAKDOWN_HITS = { drawn: 'drawn ', pick: 'pick ', row: 'row ', value: 'value ' } as const;

const STRIP = 44;
const BARS = 150;
const PLOT = 200;
const GAP = 2;
const ROW = 44;
const SWATCH = 16;
const LEFT = 34;
const SHARE = 54;

interface Frame {
  readonly width: number;
  readonly height: number | null;
  readonly focus: string | null;
}

/** The drawing with its parts under it: each with its tone, which picks it, its amount and its share. */
export function breakdownScene(data: BreakdownData, { width, height, focus }: Frame): Scene {
  const list = listOf(data, width, focus);
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

/** The tone of a part: that of its place; others and the rest have none. */
const toneOf = ({ kind }: BreakdownPart, i: number) =>
  kind === 'group'
    ? ({ fill: 'sea', fillOpacity: ringOpacity(i) } as const)
    : kind === 'others'
      ? ({ fill: 'well', stroke: 'line2' } as const)
      : ({ fill: 'sheet', stroke: 'line2', dash: '3 2.5' } as const);

function plotOf(data: BreakdownData, width: number, height: number | null, focus: string | null): Scene {
  const { periods } = data;
  if (periods) return overTime(data, periods, width, height ?? PLOT);
  return data.readout.parts === 'bars' ? bars(data, width, height ?? BARS, focus) : strip(data, width, focus);
}

const isFocused = ({ of }: BreakdownPart, focus: string | null): boolean =>
  focus !== null && of?.assetId === focus;

/** One strip, divided by share; under it the window before, thinner. */
function strip({ parts, readout }: BreakdownData, width: number, focus: string | null): Scene {
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  let x = 0;
  parts.forEach((part, i) => {
    const wide = (part.share ?? 0) * width;
    if (wide <= 0) return;
    const box = { x, y: 0, width: Math.max(0.5, wide - GAP), height: STRIP };
    marks.push({ kind: 'rect', key: part.key, ...box, ...toneOf(part, i) });
    if (isFocused(part, focus))
      marks.push({ kind: 'rect', key: `${part.key} focus`, ...box, stroke: 'ink', strokeWidth: 3 });
    hits.push({
      key: BREAKDOWN_HITS.drawn + part.key,
      spoken: `${part.name} ${shareText(part.share!)}`,
      shape: { kind: 'box', ...box },
    });
    x += wide;
  });
  const before = parts.map(({ previous, picked }) => (picked ? Math.max(0, previous ?? 0) : 0));
  const sum = before.reduce((a, b) => a + b, 0);
  if (sum === 0) return { width, height: STRIP, marks, hits, spoken: '' };
  let from = 0;
  parts.forEach((part, i) => {
    const wide = (before[i] / sum) * width;
    if (wide > 0)
      marks.push({
        kind: 'rect',
        key: `${part.key} before`,
        x: from,
        y: STRIP + 4,
        width: Math.max(0.5, wide - GAP),
        height: 8,
        ...toneOf(part, i),
      });
    from += wide;
  });
  marks.push(
    written([readout.compare === 'lastYear' ? 'the same last year' : 'the window before'], {
      key: 'before',
      x: 0,
      y: STRIP + 14,
      style: TEXT.caption,
      ink: 'ink2',
    }),
  );
  return { width, height: STRIP + 14 + TEXT.caption.lineHeight, marks, hits, spoken: '' };
}

/** A column for each part, with the window before as a line across it; numbered as in the list. */
function bars(data: BreakdownData, width: number, height: number, focus: string | null): Scene {
  const { parts, beside = [] } = data;
  const drawn = parts.flatMap((part, i) => (part.picked && part.value !== null ? [{ part, i }] : []));
  const all = [...heightsOf(data), ...beside];
  const bottom = height - 18;
  const axis = valueAxis(null, null, [0, ...all], [bottom, 6]);
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  const each = Math.min(90, width / Math.max(1, drawn.length));
  drawn.forEach(({ part, i }, k) => {
    const [top, low] = [axis.at(Math.max(0, part.value!)), axis.at(Math.min(0, part.value!))];
    const box = { x: k * each + each * 0.14, y: top, width: each * 0.72, height: Math.max(0.5, low - top) };
    marks.push({ kind: 'rect', key: part.key, ...box, ...toneOf(part, i) });
    if (isFocused(part, focus))
      marks.push({ kind: 'rect', key: `${part.key} focus`, ...box, stroke: 'ink', strokeWidth: 3 });
    if (part.previous !== null) {
      const d = `M${box.x - 3} ${axis.at(part.previous)}h${box.width + 6}`;
      marks.push({ kind: 'path', key: `${part.key} before`, d, stroke: 'ink', strokeWidth: 1.5 });
    }
    hits.push({
      key: BREAKDOWN_HITS.drawn + part.key,
      spoken: part.name,
      shape: { kind: 'box', x: k * each, y: 0, width: each, height },
    });
  });
  marks.push(
    { kind: 'path', key: 'zero', d: `M0 ${axis.at(0)}H${each * drawn.length}`, stroke: 'line2' },
    {
      kind: 'text',
      key: 'numbers',
      words: drawn.map(({ i }, k) => ({ x: (k + 0.5) * each, y: height - 4, text: String(i + 1) })),
      face: TEXT.caption.face,
      size: TEXT.caption.size,
      ink: 'ink2',
      anchor: 'middle',
    },
  );
  return { width, height, marks, hits, spoken: '' };
}

/** Columns of stacked parts, by period, as amounts or as shares of each column. */
function overTime(data: BreakdownData, periods: BreakdownPeriods, width: number, height: number): Scene {
  const { parts, readout, zone, now } = data;
  const isShares = readout.parts === 'sharesOverTime';
  const drawn = parts.flatMap((part, i) => (part.picked ? [{ part, i }] : []));
  const stacks = stackedColumns(
    drawn.map(({ part }) => part.course),
    periods.start.length,
    isShares,
  );
  const bottom = height - 20;
  const axis = isShares
    ? valueAxis(
        { ends: [0, 100], fromTarget: false, reversed: false, logarithmic: false },
        null,
        [],
        [bottom, 8],
      )
    : valueAxis(null, null, [0, ...heightsOf(data), ...(data.beside ?? [])], [bottom, 8]);
  const graduations = axis.ticks(4);
  const tick = { face: TEXT.caption.face, size: TEXT.caption.size } as const;
  const left =
    8 + Math.max(20, ...graduations.map((each) => textWidth(formatGraduation(each), tick.face, tick.size)));
  const reach = reachOf(periods);
  const x = (t: number): number => left + ((t - reach.start) / (reach.end - reach.start)) * (width - left);
  const marks: Mark[] = [
    {
      kind: 'path',
      key: 'lines',
      d: graduations.map((each) => `M${left} ${axis.at(each)}H${width}`).join(''),
      stroke: 'line',
    },
    {
      kind: 'text',
      key: 'graduations',
      words: graduations.map((each) => ({ x: left - 6, y: axis.at(each) + 4, text: formatGraduation(each) })),
      ...tick,
      ink: 'ink2',
      anchor: 'end',
    },
  ];
  stacks.forEach((column, k) => {
    const from = x(periods.start[k]);
    const wide = Math.max(1, (x(periods.end[k]) - from) * 0.86);
    if (periods.start[k] >= now) return;
    if (column.length === 0) {
      marks.push({ kind: 'hatch', key: `none ${k}`, x: from, y: 8, width: wide, height: bottom - 8 });
      return;
    }
    const isFaint = !periods.covered[k] || periods.end[k] > now;
    marks.push({
      kind: 'group',
      key: `column ${k}`,
      opacity: isFaint ? 0.5 : 1,
      marks: column.map(({ of, from: low, to: high }) => {
        const [top, base] = [axis.at(high), axis.at(low)];
        const { part, i } = drawn[of];
        return {
          kind: 'rect',
          key: part.key,
          x: from,
          y: top,
          width: wide,
          height: Math.max(0.3, base - top - 0.5),
          ...toneOf(part, i),
        };
      }),
    });
  });
  const labels = timeTicks(reach, zone, width - left);
  marks.push(
    { kind: 'path', key: 'zero', d: `M${left} ${bottom}H${width}`, stroke: 'ink2' },
    {
      kind: 'text',
      key: 'times',
      words: labels.map(({ t, label }) => ({ x: x(t), y: height - 5, text: label })),
      ...tick,
      ink: 'ink2',
    },
  );
  return { width, height, marks, hits: [], spoken: '' };
}

/** The parts as a list: the tone picks, the name focuses, the amount opens how it was made. */
function listOf(data: BreakdownData, width: number, focus: string | null): Scene {
  const { parts, decimals, unit, readout, total } = data;
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  const numbers = parts.map(({ value }) => (value === null ? '–' : formatNumber(value, decimals)));
  const room = Math.max(
    ...[...numbers, formatNumber(total, decimals)].map((text) =>
      textWidth(text, TEXT.figure.face, TEXT.figure.size),
    ),
  );
  const names = Math.max(60, width - LEFT - room - SHARE - 16);
  let y = 0;
  marks.push(...totalMarks(data, width), {
    kind: 'path',
    key: 'head rule',
    d: `M0 ${ROW - 0.5}H${width}`,
    stroke: 'line2',
  });
  y += ROW;
  const isNumbered = readout.parts === 'bars';
  parts.forEach((part, i) => {
    const name = wrapped((isNumbered ? `${i + 1}. ` : '') + part.name, TEXT.body, names);
    const change =
      part.of && part.previous !== null && readout.compare !== 'none'
        ? wrapped(changeWords(part.of, decimals, baseWords(readout)), TEXT.caption, names)
        : [];
    const text = name.length * TEXT.body.lineHeight + change.length * TEXT.caption.lineHeight;
    const height = Math.max(ROW, text + 8);
    const top = (height - text) / 2;
    const middle = y + height / 2;
    const own: Mark[] = [];
    if (isFocused(part, focus))
      own.push({ kind: 'rect', key: 'chosen', x: 0, y, width, height, fill: 'water' });
    const box = { x: 6, y: middle - SWATCH / 2, width: SWATCH, height: SWATCH };
    own.push(
      part.picked
        ? { kind: 'rect', key: 'tone', ...box, ...toneOf(part, i) }
        : { kind: 'rect', key: 'tone', ...box, stroke: 'line2' },
      written(name, {
        key: 'name',
        x: LEFT,
        y: y + top,
        style: TEXT.body,
        ink: part.picked ? 'ink' : 'ink3',
      }),
    );
    if (change.length > 0)
      own.push(
        written(change, {
          key: 'change',
          x: LEFT,
          y: y + top + name.length * TEXT.body.lineHeight,
          style: TEXT.caption,
          ink: 'ink2',
        }),
      );
    own.push(
      {
        kind: 'text',
        key: 'number',
        words: [{ x: width - SHARE, y: middle + 6, text: numbers[i] }],
        face: TEXT.figure.face,
        size: TEXT.figure.size,
        ink: part.picked && !(part.of && isThin(part.of)) ? 'ink' : 'ink3',
        anchor: 'end',
      },
      {
        kind: 'text',
        key: 'share',
        words: [{ x: width, y: middle + 5, text: part.share === null ? '' : shareText(part.share) }],
        face: 'regular',
        size: 14,
        ink: 'ink2',
        anchor: 'end',
      },
      { kind: 'path', key: 'rule', d: `M0 ${y + height - 0.5}H${width}`, stroke: 'line' },
    );
    marks.push({ kind: 'group', key: part.key, marks: own });
    hits.push({
      key: BREAKDOWN_HITS.pick + part.key,
      spoken: part.picked ? `Leave ${part.name} out of the total` : `Count ${part.name} in the total`,
      shape: { kind: 'box', x: 0, y, width: LEFT - 2, height },
    });
    if (part.of?.assetId != null)
      hits.push({
        key: BREAKDOWN_HITS.row + part.key,
        spoken: `${part.name}. ${isFocused(part, focus) ? 'Release the focus' : 'Focus on it'}`,
        shape: { kind: 'box', x: LEFT, y, width: names, height },
      });
    if (part.of)
      hits.push({
        key: BREAKDOWN_HITS.value + part.key,
        spoken: `${part.name} ${formatValue(part.value, unit, decimals)}. How it was made`,
        shape: { kind: 'box', x: width - SHARE - room - 8, y, width: SHARE + room + 8, height },
      });
    y += height;
  });
  const note = wrapped(noteOf(data), TEXT.caption, width);
  if (note[0] !== '') {
    marks.push(written(note, { key: 'note', x: 0, y: y + 6, style: TEXT.caption, ink: 'ink2' }));
    y += 6 + note.length * TEXT.caption.lineHeight;
  }
  return { width, height: y, marks, hits, spoken: '' };
}

function totalMarks(data: BreakdownData, width: number): Mark[] {
  const { total, decimals, unit } = data;
  return [
    written([isWhole(data) ? 'Together' : 'Together, of what is picked'], {
      key: 'total name',
      x: 0,
      y: (ROW - TEXT.strong.lineHeight) / 2,
      style: TEXT.strong,
      ink: 'ink',
    }),
    {
      kind: 'text',
      key: 'total',
      words: [{ x: width - SHARE, y: ROW / 2 + 6, text: formatNumber(total, decimals) }],
      face: TEXT.figure.face,
      size: TEXT.figure.size,
      ink: 'ink',
      anchor: 'end',
    },
    {
      kind: 'text',
      key: 'total unit',
      words: [{ x: width, y: ROW / 2 + 5, text: unit }],
      face: 'regular',
      size: 14,
      ink: 'ink2',
      anchor: 'end',
    },
  ];
}

const isWhole = ({ parts }: BreakdownData): boolean => parts.every(({ picked }) => picked);

/** What is left out of the total, and what does not fit it. */
function noteOf(data: BreakdownData): string {
  const { parts, excess, missing, negative, unit, decimals, measured, periods, now } = data;
  const thin = parts.filter(({ of }) => of !== null && isThin(of));
  const faint = periods?.covered.some((each, i) => !each && periods.start[i] < now);
  return [
    excess > 0
      ? `The parts are ${formatValue(excess, unit, decimals)} more than the ${formatValue(measured!.value, unit, decimals)} measured of all together: some are counted twice, or a meter is wrong.`
      : '',
    missing > 0
      ? `${missing === 1 ? 'One part has' : `${missing} parts have`} no data${parts.some(({ kind }) => kind === 'rest') ? `, so that the rest may hold what ${missing === 1 ? 'it' : 'they'} used` : ''}.`
      : '',
    thin.length > 0
      ? `Less than 75 % of the data: ${thin.map(({ name, of }) => `${name} (${formatNumber(of!.coverage * 100, 0)} %)`).join(', ')}.`
      : '',
    unfinishedWords(data),
    negative > 0
      ? `${negative === 1 ? 'One part is' : `${negative} parts are`} below zero and not in the total.`
      : '',
    faint ? 'Faint columns: less than 75 % of the data of a part, or not over yet.' : '',
  ]
    .filter((each) => each !== '')
    .join(' ');
}

function breakdownWords(data: BreakdownData): string {
  const { parts, total, unit, decimals } = data;
  const shares = parts
    .filter(({ share }) => share !== null)
    .map(({ name, share }) => `${name} ${shareText(share!)}`)
    .join(', ');
  return [`Together ${formatValue(total, unit, decimals)}: ${shares}.`, noteOf(data)]
    .filter((each) => each !== '')
    .join(' ');
}

/** Parts with amount, share and reference; over time a column for each period. */
function breakdownTable({ parts, unit, periods }: BreakdownData): Table {
  if (periods) {
    return {
      columns: [
        { name: 'From', unit: '', isTime: true },
        { name: 'To', unit: '', isTime: true },
        ...parts.map(({ name }) => ({ name, unit })),
      ],
      rows: periods.start.map((start, i) => [
        start,
        periods.end[i],
        ...parts.map(({ course }) => course[i] ?? null),
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
