import * as yup from 'yup';
import { LEVEL_WORDS, SEVERITY, type Level } from '../bands/targetBand';
import { shapeInk } from '../drawing/palette';
import { placeNames } from '../drawing/placeNames';
import type { HitRegion, Mark, Scene } from '../drawing/scene';
import { starPath } from '../drawing/starPath';
import { textWidth } from '../drawing/textWidth';
import { valueAxis, type ValueAxis } from '../drawing/valueAxis';
import { formatGraduation, formatValue } from '../format/format';
import { asked } from './ask';
import { groupsRequests, type MeasureColumn } from './groupsData';
import { groupsTable } from './groupsTable';
import { moreBandsField } from './moreBands';
import { ONE_VALUE } from './oneValue';
import type { ReadoutFormOf } from './readoutForm';
import {
  quadrantsOf,
  scatterData,
  scattersAlike,
  type ScatterChoices,
  type ScatterData,
  type ScatterPoint,
} from './scatterData';
import { TEXT, wrapped, written } from './scene/words';
import { unfinishedWords } from './stateWords';
import type { Table } from './table';

/** Two measures of each asset or group against one another, with a third as the size. */
export const scatter: ReadoutFormOf<ScatterChoices, ScatterData> = {
  ...ONE_VALUE,
  label: 'Scatter',
  fields: {
    names: asked(
      yup
        .string()
        .oneOf(['fit', 'chosen'] as const)
        .default('fit'),
      { label: 'Names', words: { fit: 'as many as fit', chosen: 'of the focus only' } },
    ),
    moreBands: moreBandsField,
  },
  defaults: { names: 'fit', moreBands: [] },
  groupedMeasures: 'all',
  splits: true,
  compare: 'before',
  columns: { one: 6, many: 6 },
  requests: groupsRequests,
  data: scatterData,
  alike: scattersAlike,
  scene: (data, { width, height, focus }) => scatterScene(data, { width, height, focus }),
  table: scatterTable,
};

const TOP = 22;
const BOTTOM = 40;
const TICK = { face: TEXT.caption.face, size: TEXT.caption.size } as const;
/** Radius of a point, of the smallest and of the largest with a size, px. */
const RADIUS = { plain: 4.5, least: 3, most: 15 } as const;
/** How near a finger must come, px. */
const REACH = 22;
/** Names that are tried at most: more cannot be read. */
const MOST_NAMES = 120;

/** Points between their axes, with the targets of both measures and the number of points on each side of them. */
export function scatterScene(
  data: ScatterData,
  {
    width,
    height,
    focus,
  }: { readonly width: number; readonly height: number | null; readonly focus: string | null },
): Scene {
  const { points, columns } = data;
  const [across, up] = columns;
  const note = wrapped(noteOf(data), TEXT.caption, width);
  const noteHeight = note[0] === '' ? 0 : note.length * TEXT.caption.lineHeight + 4;
  const tall = Math.max(160, Math.min(360, width * 0.62));
  const full = height === null ? tall + noteHeight : Math.max(160, height);
  const bottom = full - noteHeight - BOTTOM;
  const yAxis = axisOf(up, [...points.map(({ y }) => y), ...(data.beside?.[1] ?? [])], [bottom, TOP]);
  const yTicks = yAxis.ticks(5);
  const left =
    8 + Math.max(20, ...yTicks.map((tick) => textWidth(formatGraduation(tick), TICK.face, TICK.size)));
  const right = width - 10;
  const xAxis = axisOf(across, [...points.map(({ x }) => x), ...(data.beside?.[0] ?? [])], [left, right]);
  const xTicks = xAxis.ticks(Math.max(2, Math.floor((right - left) / 70)));
  const marks: Mark[] = [
    axes({ left, right, bottom }, xAxis, xTicks, yAxis, yTicks),
    ticks(
      'x ticks',
      xTicks.map((tick) => ({ x: xAxis.at(tick), y: bottom + 16, text: formatGraduation(tick) })),
      'middle',
    ),
    ticks(
      'y ticks',
      yTicks.map((tick) => ({ x: left - 6, y: yAxis.at(tick) + 4, text: formatGraduation(tick) })),
      'end',
    ),
    ticks('x name', [{ x: right, y: bottom + 33, text: `${named(across)} →` }], 'end'),
    ticks('y name', [{ x: 0, y: 12, text: `↑ ${named(up)}` }], 'start'),
    ...targetMarks(data, { left, right, bottom }, xAxis, yAxis),
  ];
  const drawn = points.map((point) => ({
    point,
    x: xAxis.at(point.x),
    y: yAxis.at(point.y),
    r: radiusOf(point),
  }));
  const isFocus = ({ point }: (typeof drawn)[number]): boolean => focus !== null && point.assetId === focus;
  // Large ones lie behind, so that none hides a small one.
  const backToFront = [...drawn].sort((a, b) => b.r - a.r);
  for (const level of ['plain', 'clear', 'nodata', 'caution', 'breach'] as const) {
    const own = backToFront.filter((each) => (each.point.level ?? 'plain') === level && !isFocus(each));
    if (own.length > 0) marks.push(...pointMarks(level, own));
  }
  const chosen = drawn.filter(isFocus);
  for (const each of chosen)
    marks.push(
      {
        kind: 'circle',
        key: 'focus',
        cx: each.x,
        cy: each.y,
        r: each.r + 5,
        stroke: 'sea',
        strokeWidth: 2.5,
        fill: 'water',
      },
      ...pointMarks(each.point.level ?? 'plain', [each]).map((mark) => ({
        ...mark,
        key: `${mark.key} focus`,
      })),
    );
  const inOrder = [...drawn].sort(
    (a, b) =>
      Number(isFocus(b)) - Number(isFocus(a)) ||
      SEVERITY[a.point.level ?? 'clear'] - SEVERITY[b.point.level ?? 'clear'] ||
      b.r - a.r,
  );
  const candidates = (data.readout.names === 'fit' ? inOrder : inOrder.filter(isFocus)).slice(0, MOST_NAMES);
  const room = { x: left, y: TOP, width: right - left, height: bottom - TOP };
  const names = placeNames(
    candidates.map(({ point, x, y, r }) => ({ key: point.key, name: point.name, x, y, r })),
    room,
    { face: 'medium', size: 12 },
  );
  marks.push({
    kind: 'text',
    key: 'names',
    words: names.map(({ x, y, text }) => ({ x, y, text })),
    face: 'medium',
    size: 12,
    ink: 'ink',
    outline: 'sheet',
  });
  if (noteHeight > 0)
    marks.push(
      written(note, { key: 'note', x: 0, y: full - noteHeight + 4, style: TEXT.caption, ink: 'ink2' }),
    );
  return {
    width,
    height: full,
    marks,
    hits: backToFront.map(({ point, x, y, r }): HitRegion => ({
      key: point.key,
      spoken: pointWords(data, point),
      shape: { kind: 'point', cx: x, cy: y, r: Math.max(r, REACH) },
    })),
    spoken: scatterWords(data),
  };
}

interface Plot {
  readonly left: number;
  readonly right: number;
  readonly bottom: number;
}

const named = ({ name, unit }: MeasureColumn): string => [name, unit].filter(Boolean).join(', ');

/** A scale with a little room at both ends, so that no point lies on the edge. */
function axisOf(
  { band }: MeasureColumn,
  values: readonly number[],
  range: readonly [number, number],
): ValueAxis {
  const plain = valueAxis(null, band, values, range);
  const room = (plain.high - plain.low) * 0.04;
  const ends = [plain.low - room, plain.high + room] as const;
  return valueAxis({ ends, fromTarget: false, reversed: false, logarithmic: false }, band, values, range);
}

const axes = (
  { left, right, bottom }: Plot,
  xAxis: ValueAxis,
  xTicks: readonly number[],
  yAxis: ValueAxis,
  yTicks: readonly number[],
): Mark => ({
  kind: 'path',
  key: 'axes',
  d:
    `M${left} ${TOP}V${bottom}H${right}` +
    xTicks.map((tick) => `M${xAxis.at(tick)} ${bottom}v4`).join('') +
    yTicks.map((tick) => `M${left} ${yAxis.at(tick)}h-4`).join(''),
  stroke: 'ink2',
});

const ticks = (
  key: string,
  words: readonly { readonly x: number; readonly y: number; readonly text: string }[],
  anchor: 'start' | 'middle' | 'end',
): Mark => ({ kind: 'text', key, words, ...TICK, ink: 'ink2', anchor });

/** Lines at both targets and, with both, the number of points in each quadrant. */
function targetMarks(
  { columns, points }: ScatterData,
  plot: Plot,
  xAxis: ValueAxis,
  yAxis: ValueAxis,
): Mark[] {
  const { left, right, bottom } = plot;
  const [x, y] = columns.slice(0, 2).map(({ band }) => band?.target ?? null);
  const lines = [
    x === null ? '' : `M${xAxis.at(x)} ${TOP}V${bottom}`,
    y === null ? '' : `M${left} ${yAxis.at(y)}H${right}`,
  ].join('');
  if (lines === '') return [];
  const marks: Mark[] = [{ kind: 'path', key: 'targets', d: lines, stroke: 'ink2', dash: '4 3' }];
  if (x === null || y === null) return marks;
  const [leftAbove, rightAbove, leftBelow, rightBelow] = quadrantsOf(points, x, y);
  const count = (key: string, n: number, at: readonly [number, number], anchor: 'start' | 'end'): Mark => ({
    kind: 'text',
    key,
    words: [{ x: at[0], y: at[1], text: String(n) }],
    face: 'strong',
    size: 15,
    ink: 'ink3',
    anchor,
  });
  return [
    ...marks,
    count('left above', leftAbove, [left + 6, TOP + 16], 'start'),
    count('right above', rightAbove, [right - 4, TOP + 16], 'end'),
    count('left below', leftBelow, [left + 6, bottom - 6], 'start'),
    count('right below', rightBelow, [right - 4, bottom - 6], 'end'),
  ];
}

/** Areas grow with the size, because areas are what one compares. */
const radiusOf = ({ size }: ScatterPoint): number =>
  size === null ? RADIUS.plain : Math.max(RADIUS.least, RADIUS.most * Math.sqrt(size));

interface At {
  readonly x: number;
  readonly y: number;
  readonly r: number;
}

/** All points of one level as few shapes: a ring, a ring half full, a flare, a broken ring. */
function pointMarks(level: Level | 'plain', points: readonly At[]): Mark[] {
  const rings = points
    .map(({ x, y, r }) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`)
    .join('');
  if (level === 'breach') {
    const stars = points.map(({ x, y, r }) => starPath(x, y, r + 2.5, r * 0.62 + 1.5)).join('');
    return [{ kind: 'path', key: level, d: stars, fill: 'breach', fillOpacity: 0.9 }];
  }
  const ring: Mark = {
    kind: 'path',
    key: level,
    d: rings,
    fill: level === 'caution' ? 'cautionW' : 'sheet',
    fillOpacity: 0.75,
    stroke: level === 'plain' ? 'ink2' : shapeInk(level),
    strokeWidth: 1.6,
    ...(level === 'nodata' && { dash: '2.5 2' }),
  };
  if (level !== 'caution') return [ring];
  const halves = points.map(({ x, y, r }) => `M${x} ${y - r}a${r} ${r} 0 0 0 0 ${2 * r}Z`).join('');
  return [ring, { kind: 'path', key: 'caution half', d: halves, fill: 'caution' }];
}

/** What is not drawn, and what the size means. */
function noteOf(data: ScatterData): string {
  const { leftOut, columns, points, readout } = data;
  const size = columns[2] ? `Size: ${named(columns[2])}.` : '';
  const missing =
    leftOut.length === 0
      ? ''
      : `${leftOut.length === 1 ? leftOut[0] : leftOut.length} without both values ${leftOut.length === 1 ? 'is' : 'are'} not drawn.`;
  const unsized = points.filter((point) => point.size === null).length;
  const plain =
    columns[2] && unsized > 0 ? `${unsized} without a size ${unsized === 1 ? 'is' : 'are'} drawn small.` : '';
  const more = readout.measures.length > 3 ? 'Further measures are in its table.' : '';
  return [size, plain, unfinishedWords(data), missing, more].filter((each) => each !== '').join(' ');
}

/** A point in words: "Dryer 5: time utilisation 82 %, money utilisation 61 %, Breach". */
export function pointWords({ columns }: ScatterData, { name, values, level }: ScatterPoint): string {
  const numbers = columns.map(
    (column, i) => `${column.name} ${formatValue(values[i].value, column.unit, column.decimals)}`,
  );
  return `${name}: ${numbers.join(', ')}${level === null ? '' : `, ${LEVEL_WORDS[level]}`}`;
}

function scatterWords(data: ScatterData): string {
  const { points, columns } = data;
  const [x, y] = columns.map(({ band }) => band?.target ?? null);
  const sides =
    x === null || y === null
      ? ''
      : (([a, b, c, d]) =>
          `Of both targets ${b} lie above in both, ${d} only across, ${a} only upwards, ${c} in neither.`)(
          quadrantsOf(points, x, y),
        );
  return [`${points.length} points, ${columns[1].name} against ${columns[0].name}.`, sides, noteOf(data)]
    .filter((each) => each !== '')
    .join(' ');
}

function scatterTable({ groups, columns }: ScatterData): Table {
  return groupsTable(
    columns,
    groups.map(({ name, values }) => ({ lead: [name], values, tail: [] })),
    { lead: [{ name: 'Name', unit: '' }], tail: [] },
  );
}
