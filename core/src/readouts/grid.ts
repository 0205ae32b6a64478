import * as yup from 'yup';
import { LEVEL_WORDS } from '../bands/targetBand';
import { fittedText } from '../drawing/fittedText';
import { lampMark } from '../drawing/lampScene';
import { shapeInk } from '../drawing/palette';
import { placed, type HitRegion, type Mark, type Scene } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { formatNumber, formatValue } from '../format/format';
import { asked } from './ask';
import {
  GRID_LAYOUTS,
  gridData,
  gridsAlike,
  gridRequests,
  type Grid,
  type HeatCell,
  type GridChoices,
  type GridData,
} from './gridData';
import { ONE_VALUE } from './oneValue';
import type { ReadoutFormOf } from './readoutForm';
import { TEXT, wrapped, written } from './scene/words';
import type { Slot } from './slots';
import { isThin, unfinishedWords } from './stateWords';
import type { Table } from './table';

const SLOTS: readonly Slot[] = [
  'summary',
  'metric',
  'per',
  'window',
  'group',
  'scope',
  'hours',
  'band',
  'appearance',
];

/** Values by hour and weekday, by date, or by asset, as a grid of tones. */
export const grid: ReadoutFormOf<GridChoices, GridData> = {
  ...ONE_VALUE,
  label: 'Heat grid',
  slots: SLOTS,
  overTime: true,
  compare: 'none',
  columns: { one: 6, many: 6 },
  fields: {
    layout: asked(yup.string().oneOf(GRID_LAYOUTS).default('weekdayHour'), {
      label: 'Laid out as',
      words: {
        weekdayHour: 'hours by weekday',
        dateHour: 'hours by date',
        monthDay: 'days by month',
        groupHour: 'hours by asset or group',
      },
    }),
    tones: asked(
      yup
        .string()
        .oneOf(['level', 'size'] as const)
        .default('level'),
      { label: 'Tones', words: { level: 'levels of the target band', size: 'size of the values alone' } },
    ),
  },
  defaults: { layout: 'weekdayHour', tones: 'level' },
  requests: gridRequests,
  data: gridData,
  alike: gridsAlike,
  scene: (data, { width }) => gridScene(data, width),
  table: gridTable,
};

const GAP = 1;
const HEAD = 18;
const LEAST_ROW = 14;
const MOST_ROW = 26;
const LEGEND = 44;

/** The grids under one another on one scale, with what their tones mean. */
export function gridScene(data: GridData, width: number): Scene {
  const { grids, columns } = data;
  const names = grids.flatMap(({ rows }) => rows.map(({ name }) => name));
  const label = Math.min(
    width * 0.34,
    8 + Math.max(...names.map((name) => textWidth(name, TEXT.caption.face, TEXT.caption.size))),
  );
  const each = (width - label) / columns;
  const height = Math.max(LEAST_ROW, Math.min(MOST_ROW, each));
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  let y = 0;
  for (const [i, own] of grids.entries()) {
    if (own.name !== '') {
      const lines = wrapped(own.name, TEXT.name, width);
      marks.push(written(lines, { key: `name ${i}`, x: 0, y, style: TEXT.name, ink: 'ink' }));
      y += lines.length * TEXT.name.lineHeight + 2;
    }
    const drawn = oneGrid(data, own, { label, each, height, width });
    const put = placed(drawn, `grid ${i}`, 0, y);
    marks.push(...put.marks);
    // Keys of cells are unique over all grids.
    hits.push(...put.hits.map((hit) => ({ ...hit, key: hit.key.slice(`grid ${i} `.length) })));
    y += drawn.height + 10;
  }
  const legend = placed(legendOf(data, width), 'legend', 0, y);
  return {
    width,
    height: y + legendOf(data, width).height,
    marks: [...marks, ...legend.marks],
    hits,
    spoken: gridWords(data),
  };
}

interface Measures {
  readonly label: number;
  /** Width of a cell with its gap, px. */
  readonly each: number;
  /** Height of a row with its gap, px. */
  readonly height: number;
  readonly width: number;
}

function oneGrid(data: GridData, { rows }: Grid, { label, each, height, width }: Measures): Scene {
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  rows.forEach((row, r) => {
    const y = r * height;
    marks.push(
      written([fittedText(row.name, TEXT.caption.face, TEXT.caption.size, label - 8)], {
        key: `row ${r}`,
        x: 0,
        y: y + (height - TEXT.caption.lineHeight) / 2,
        style: TEXT.caption,
        ink: 'ink2',
      }),
    );
    row.cells.forEach((cell) => {
      const x = label + cell.column * each;
      const box = { x, y, width: each - GAP, height: height - GAP };
      marks.push(...cellMarks(data, cell, box));
      if (cell.hours > 0)
        hits.push({
          key: cell.key,
          spoken: `${cellWords(data, cell)}. Open its trend`,
          shape: { kind: 'box', ...box },
        });
    });
  });
  const below = rows.length * height;
  marks.push({
    kind: 'text',
    key: 'heads',
    words: data.heads.map(({ column, name }) => ({ x: label + column * each, y: below + 13, text: name })),
    face: TEXT.caption.face,
    size: TEXT.caption.size,
    ink: 'ink2',
  });
  return { width, height: below + HEAD, marks, hits, spoken: '' };
}

interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A cell: its tone, smaller outside working time; a broken outline without data; a lamp beyond Clear. */
function cellMarks(data: GridData, cell: HeatCell, box: Box): Mark[] {
  if (cell.hours === 0) return [];
  const { key } = cell;
  const inset = Math.min(3, box.width / 4);
  const isOff = cell.working < 0.5;
  // A lamp needs all of the room.
  const isBeyond =
    showsLevels(data) && !isThin(cell) && (cell.level === 'breach' || cell.level === 'caution');
  const inner =
    isOff && !isBeyond
      ? { x: box.x + inset, y: box.y + inset, width: box.width - 2 * inset, height: box.height - 2 * inset }
      : box;
  const ground: Mark[] = isOff
    ? [{ kind: 'rect', key: `${key} off`, ...box, fill: 'line', opacity: 0.55 }]
    : [];
  if (cell.value === null)
    return [...ground, { kind: 'rect', key, ...inner, stroke: 'nodata', strokeWidth: 1, dash: '2.5 2' }];
  if (isThin(cell))
    return [
      ...ground,
      {
        kind: 'rect',
        key,
        ...inner,
        fill: 'sea',
        fillOpacity: toneOf(data, cell.value) / 2,
        stroke: 'nodata',
        dash: '2.5 2',
      },
    ];
  if (!isBeyond)
    return [...ground, { kind: 'rect', key, ...inner, fill: 'sea', fillOpacity: toneOf(data, cell.value) }];
  const size = Math.min(16, inner.width - 1, inner.height - 1);
  return [
    ...ground,
    { kind: 'rect', key, ...inner, fill: 'sheet', stroke: shapeInk(cell.level), strokeWidth: 1.5 },
    lampMark(
      cell.level,
      `${key} lamp`,
      inner.x + (inner.width - size) / 2,
      inner.y + (inner.height - size) / 2,
      size,
    ),
  ];
}

const showsLevels = ({ readout, band }: GridData): boolean => readout.tones === 'level' && band !== null;

const FAINTEST = 0.1;

/** How strong the tone of a value is, 0.1 for the smallest to 1 for the largest. */
function toneOf({ extent }: GridData, value: number): number {
  if (!extent || extent[0] === extent[1]) return 0.5;
  const share = (value - extent[0]) / (extent[1] - extent[0]);
  return FAINTEST + (1 - FAINTEST) * Math.min(1, Math.max(0, share));
}

function legendOf(data: GridData, width: number): Scene {
  const { extent, unit, decimals } = data;
  const marks: Mark[] = [];
  let y = 0;
  if (extent) {
    const steps = 5;
    const low = formatNumber(extent[0], decimals);
    const high = formatValue(extent[1], unit, decimals);
    const from = textWidth(low, TEXT.caption.face, TEXT.caption.size) + 6;
    for (let i = 0; i < steps; i++) {
      const opacity = FAINTEST + ((1 - FAINTEST) * i) / (steps - 1);
      const x = from + i * 16;
      marks.push({
        kind: 'rect',
        key: `tone ${i}`,
        x,
        y: 2,
        width: 15,
        height: 12,
        fill: 'sea',
        fillOpacity: opacity,
      });
    }
    marks.push(
      written([low], { key: 'low', x: 0, y, style: TEXT.caption, ink: 'ink2' }),
      written([high], { key: 'high', x: from + steps * 16 + 5, y, style: TEXT.caption, ink: 'ink2' }),
    );
    y += TEXT.caption.lineHeight + 2;
    if (showsLevels(data)) {
      let x = 0;
      for (const level of ['caution', 'breach'] as const) {
        const word = LEVEL_WORDS[level];
        marks.push(
          lampMark(level, `lamp ${level}`, x, y + 1, 14),
          written([word], { key: level, x: x + 18, y, style: TEXT.caption, ink: 'ink2' }),
        );
        x += 18 + textWidth(word, TEXT.caption.face, TEXT.caption.size) + 14;
      }
      y += TEXT.caption.lineHeight + 2;
    }
  }
  const words = wrapped(noteOf(data), TEXT.caption, width);
  if (words[0] !== '') marks.push(written(words, { key: 'note', x: 0, y, style: TEXT.caption, ink: 'ink2' }));
  return {
    width,
    height: Math.max(
      extent ? LEGEND - 20 : 0,
      y + (words[0] === '' ? 0 : words.length * TEXT.caption.lineHeight),
    ),
    marks,
    hits: [],
    spoken: '',
  };
}

/** What the cells hold, and what is left out or marked. */
function noteOf(data: GridData): string {
  const cells = data.grids
    .flatMap(({ rows }) => rows.flatMap((row) => row.cells))
    .filter(({ hours }) => hours > 0);
  const some = (is: (cell: HeatCell) => boolean): boolean => cells.some(is);
  return [
    data.isMeanHour ? 'Mean of an hour with data.' : '',
    unfinishedWords(data),
    some(({ working }) => working < 0.5) && some(({ working }) => working >= 0.5)
      ? 'Small squares: outside working hours.'
      : '',
    some(({ value }) => value === null) ? 'Broken outline: no data.' : '',
    some(isThin) ? 'Faint with a broken outline: less than 75 % of the data.' : '',
    data.leftOut > 0 ? `${data.leftOut} more rows are not drawn.` : '',
  ]
    .filter((each) => each !== '')
    .join(' ');
}

/** The grid in words: its extremes. */
function gridWords(data: GridData): string {
  const cells = data.grids.flatMap(({ name, rows }) =>
    rows.flatMap((row) =>
      row.cells.map((cell) => ({ ...cell, name: [name, cell.name].filter(Boolean).join(', ') })),
    ),
  );
  const known = cells.filter((cell) => cell.value !== null && !isThin(cell));
  if (known.length === 0) return 'No data in any cell.';
  const high = known.reduce((a, b) => (b.value! > a.value! ? b : a));
  const low = known.reduce((a, b) => (b.value! < a.value! ? b : a));
  const beyond = showsLevels(data) ? known.filter(({ level }) => level === 'breach').length : 0;
  return [
    `Highest ${cellWords(data, high)}; lowest ${cellWords(data, low)}.`,
    beyond > 0 ? `${beyond} in Breach.` : '',
    noteOf(data),
  ]
    .filter((each) => each !== '')
    .join(' ');
}

/** A cell in words: "Mon, 06:00 12.4 kWh, Caution". */
export function cellWords({ unit, decimals, band }: GridData, cell: HeatCell): string {
  const value = formatValue(cell.value, unit, decimals);
  const level = isThin(cell)
    ? `coverage ${formatNumber(cell.coverage * 100, 0)} %`
    : band || cell.value === null
      ? LEVEL_WORDS[cell.level]
      : '';
  return [`${cell.name} ${value}`, level].filter(Boolean).join(', ');
}

/** One row a cell: where it is, its value, level, coverage and hours. */
function gridTable({ grids, unit, band }: GridData): Table {
  const many = grids.length > 1;
  return {
    columns: [
      ...(many ? [{ name: 'Group', unit: '' }] : []),
      { name: 'Row', unit: '' },
      { name: 'Column', unit: '' },
      { name: 'Value', unit },
      ...(band ? [{ name: 'Level', unit: '' }] : []),
      { name: 'Coverage', unit: '%' },
      { name: 'Hours passed', unit: 'h' },
      { name: 'Working time', unit: '%' },
    ],
    rows: grids.flatMap(({ name, rows }) =>
      rows.flatMap((row) =>
        row.cells
          .filter(({ hours }) => hours > 0)
          .map((cell) => [
            ...(many ? [name] : []),
            row.name,
            cell.column,
            cell.value,
            ...(band ? [isThin(cell) ? null : LEVEL_WORDS[cell.level]] : []),
            cell.coverage * 100,
            cell.hours,
            cell.working * 100,
          ]),
      ),
    ),
  };
}
