import * as yup from 'yup';
import { barScale, type BarScale } from '../drawing/valueBar';
import type { HitRegion, Mark, Scene } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { formatValue } from '../format/format';
import { groupCount } from './measureNames';
import { lowerFirst } from '../text/lowerFirst';
import { shareText } from '../drawing/ringScene';
import { asked, askedNumber } from './ask';
import { groupsTable } from './groupsTable';
import { besideGroups, type MeasureColumn } from './groupsData';
import { MAX_MEASURES } from '../domain/measure';
import { moreBandsField } from './moreBands';
import { ONE_VALUE } from './oneValue';
import {
  DEFAULT_RANKING,
  RANKING_ORDERS,
  rankingData,
  rankingFurther,
  rankingRequests,
  type RankedRow,
  type RankingChoices,
  type RankingData,
} from './rankingData';
import type { ReadoutFormOf } from './readoutForm';
import type { ReadoutValue } from './readoutValues';
import { CELL_HEIGHT, numberRoom, valueCell } from './scene/valueCell';
import { TEXT, wrapped, written } from './scene/words';
import { levelWord, stateWords, unfinishedWords } from './stateWords';

const fields = {
  order: asked(yup.string().oneOf(RANKING_ORDERS).default('largest'), {
    label: 'Sorted by',
    words: {
      largest: 'largest first',
      smallest: 'smallest first',
      worst: 'furthest off target first',
      name: 'name',
    },
  }),
  by: yup
    .number()
    .integer()
    .min(0)
    .max(MAX_MEASURES - 1)
    .default(0),
  rows: askedNumber(yup.number().integer().min(1).max(5000).nullable().default(null), {
    label: 'Rows at most (empty: all)',
  }),
  leastValue: askedNumber(yup.number().nullable().default(null), {
    label: 'Smallest value with a row of its own (empty: any)',
  }),
  leastShare: askedNumber(yup.number().min(0).max(100).nullable().default(null), {
    label: 'Smallest share of the total with a row of its own (empty: any)',
    unit: '%',
  }),
  shares: asked(
    yup
      .string()
      .oneOf(['none', 'share', 'running'] as const)
      .default('none'),
    {
      label: 'Share of the total',
      words: { none: 'not shown', share: 'of each row', running: 'of each row, and of all so far' },
    },
  ),
  moves: asked(yup.boolean().default(false), {
    label: 'Change of rank',
    words: { false: 'not shown', true: 'against the reference' },
  }),
  moreBands: moreBandsField,
};

/** Assets or groups by the size of a measure, with others beside it. */
export const ranking: ReadoutFormOf<RankingChoices, RankingData> = {
  ...ONE_VALUE,
  label: 'Ranking',
  fields,
  defaults: { ...DEFAULT_RANKING, moreBands: [] },
  groupedMeasures: 'all',
  splits: true,
  columns: { one: 4, many: 6 },
  requests: rankingRequests,
  further: rankingFurther,
  data: rankingData,
  alike: besideGroups,
  scene: (data, { width, focus }) => rankingScene(data, { width, focus }),
  table: rankingTable,
};

/** Most rows that are drawn at once. */
export const MOST_DRAWN = 200;
const RANK = 30;
const GAP = 16;
/** Least room for names and for a measure beside them, px. */
const LEAST = { name: 104, cell: 84 } as const;
/** Words under a name wrap from this width on, px. */
const MOST_SECOND = 190;
const PAD = 5;

/** Part of the key of a hit region that says what a tap does. */
export const RANKING_HITS = { sort: 'sort ', row: 'row ', value: 'value ' } as const;

interface Column {
  readonly column: MeasureColumn;
  readonly scale: BarScale;
  readonly room: number;
}

interface Layout {
  /** Whether the cells stand under the name instead of beside it. */
  readonly isStacked: boolean;
  readonly name: { readonly x: number; readonly width: number };
  readonly cells: { readonly x: number; readonly width: number };
}

/** The rows of a ranking with their heads, which sort, their names and their numbers. */
export function rankingScene(
  data: RankingData,
  {
    width,
    focus,
    find = '',
  }: { readonly width: number; readonly focus: string | null; readonly find?: string },
): Scene {
  const { columns, rows, others } = data;
  const found = rows.filter(({ name }) =>
    name.toLocaleLowerCase('en').includes(find.toLocaleLowerCase('en')),
  );
  const drawn = found.slice(0, MOST_DRAWN);
  const all = [...rows.map(({ values }) => values), ...(others ? [others.values] : [])];
  const laid = columns.map((column, i): Column => {
    const values = all.map((each) => each[i]?.value ?? null);
    const own = rows.map((row) => row.values[i].value);
    return {
      column,
      scale: barScale([...own, ...(data.beside?.[i] ?? [])], column.band),
      room: numberRoom(values, column),
    };
  });
  const layout = layoutOf(data, laid, drawn, width);
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  let y = 0;
  const head = headOf(data, laid, layout);
  marks.push(...head.marks);
  hits.push(...head.hits);
  y += head.height;
  for (const row of drawn) {
    const isChosen = focus !== null && row.assetId === focus;
    const put = rowOf(data, row, laid, layout, { y, width, isChosen });
    marks.push(put.mark);
    hits.push(...put.hits);
    y += put.height;
  }
  if (others && find === '') {
    const name = `${others.count} others`;
    const words = [
      others.unknown > 0 ? `${others.unknown} without data` : '',
      others.share === null ? '' : `${shareText(others.share)} of the total`,
    ];
    const row = { key: 'others', name, rank: null, assetId: null, values: others.values };
    const put = rowOf(data, { ...row, words: listed(words) }, laid, layout, { y, width, isChosen: false });
    marks.push(put.mark);
    hits.push(...put.hits);
    y += put.height;
  }
  const caption = wrapped(rankingWords(data), TEXT.caption, width);
  marks.push(written(caption, { key: 'caption', x: 0, y: y + 6, style: TEXT.caption, ink: 'ink2' }));
  return {
    width,
    height: y + 6 + caption.length * TEXT.caption.lineHeight,
    marks,
    hits,
    spoken: `${rankingWords(data)} ${rows
      .slice(0, 5)
      .map((row) => spokenRow(data, row))
      .join('; ')}`,
  };
}

/** What is ranked, and what is left out. */
export function rankingWords(data: RankingData): string {
  const { count, rows, columns, by, total, overlaps, readout } = data;
  const { name, unit, decimals } = columns[by];
  const unknown = rows.filter(({ rank }) => rank === null).length;
  const order = readout.order === 'worst' && !columns[by].band ? 'largest' : readout.order;
  const words = {
    largest: 'largest first',
    smallest: 'smallest first',
    worst: 'furthest off target first',
    name: 'by name',
  }[order];
  const what = columns.length > 1 && order !== 'name' ? `by ${lowerFirst(name)}, ${words}` : words;
  return [
    `${groupCount(count, readout.groupBy)}, ${what}.`,
    total === null ? '' : `Together ${formatValue(total, unit, decimals)}.`,
    overlaps ? 'Some lie within others, so that shares add up to more than the whole.' : '',
    unfinishedWords(data),
    unknown > 0 ? `${unknown} without data ${unknown === 1 ? 'has' : 'have'} no rank.` : '',
  ]
    .filter((each) => each !== '')
    .join(' ');
}

function layoutOf(
  data: RankingData,
  columns: readonly Column[],
  rows: readonly RankedRow[],
  width: number,
): Layout {
  const longest = Math.max(
    0,
    ...rows.map((row) =>
      Math.max(
        textWidth(row.name, TEXT.name.face, TEXT.name.size),
        Math.min(MOST_SECOND, textWidth(rowWords(data, row), TEXT.second.face, TEXT.second.size)),
      ),
    ),
  );
  const least = columns.reduce((sum, { room }) => sum + Math.max(LEAST.cell, room + GAP), 0);
  const beside = width - RANK - least;
  if (columns.length > 1 && beside < LEAST.name) {
    const name = { x: RANK, width: width - RANK };
    return { isStacked: true, name, cells: { x: RANK, width: width - RANK } };
  }
  const name = Math.max(40, Math.min(longest + 4, beside, Math.max(LEAST.name, width * 0.4)));
  const x = RANK + name + GAP;
  return { isStacked: false, name: { x: RANK, width: name }, cells: { x, width: Math.max(0, width - x) } };
}

/** Where a column's cells begin and how wide they are. */
function cellPlace({ cells }: Layout, count: number, i: number): { x: number; width: number } {
  const each = (cells.width - GAP * (count - 1)) / count;
  return { x: cells.x + i * (each + GAP), width: each };
}

/** Names of the columns with their units; of several a tap on one sorts by it. */
function headOf(
  { readout, by }: RankingData,
  columns: readonly Column[],
  layout: Layout,
): { readonly marks: Mark[]; readonly hits: HitRegion[]; readonly height: number } {
  const many = columns.length > 1;
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  const heads = columns.map(({ column: { name, unit } }, i) => {
    const place = cellPlace(layout, columns.length, i);
    const words = many ? [name, unit].filter(Boolean).join(', ') : unit;
    const arrow = many && i === by ? (readout.order === 'smallest' ? '↑ ' : '↓ ') : '';
    return { place, lines: words === '' ? [] : wrapped(arrow + words, TEXT.caption, place.width) };
  });
  const lines = Math.max(0, ...heads.map((each) => each.lines.length));
  if (lines === 0) return { marks, hits, height: 0 };
  const height = many ? Math.max(44, lines * TEXT.caption.lineHeight + 6) : TEXT.caption.lineHeight + 4;
  heads.forEach(({ place, lines: own }, i) => {
    const y = height - own.length * TEXT.caption.lineHeight - 3;
    marks.push(
      written(own, {
        key: `head ${i}`,
        x: place.x + place.width,
        y,
        style: many && i === by ? { ...TEXT.caption, face: 'strong' } : TEXT.caption,
        ink: many && i === by ? 'ink' : 'ink2',
        anchor: 'end',
      }),
    );
    if (many)
      hits.push({
        key: `${RANKING_HITS.sort}${i}`,
        spoken: `Sort by ${columns[i].column.name}${i === by ? ', sorted by it now' : ''}`,
        shape: { kind: 'box', x: place.x, y: 0, width: place.width, height },
      });
  });
  const end = layout.cells.x + layout.cells.width;
  marks.push({ kind: 'path', key: 'rule', d: `M0 ${height}H${end}`, stroke: 'line2' });
  return { marks, hits, height };
}

type DrawnRow = Pick<RankedRow, 'key' | 'name' | 'assetId' | 'rank'> & {
  readonly values: readonly (ReadoutValue | null)[];
  readonly words?: string;
};

function rowOf(
  data: RankingData,
  row: DrawnRow | RankedRow,
  columns: readonly Column[],
  layout: Layout,
  { y, width, isChosen }: { readonly y: number; readonly width: number; readonly isChosen: boolean },
): { readonly mark: Mark; readonly hits: HitRegion[]; readonly height: number } {
  const second = 'words' in row ? (row.words ?? '') : rowWords(data, row as RankedRow);
  const name = wrapped(row.name, TEXT.name, layout.name.width);
  const more = second === '' ? [] : wrapped(second, TEXT.second, layout.name.width);
  const text = name.length * TEXT.name.lineHeight + more.length * TEXT.second.lineHeight;
  const hasLamp = columns.length > 1 && columns.some(({ column }) => column.band !== null);
  const cell = CELL_HEIGHT[hasLamp ? 'lamp' : 'plain'];
  const height = Math.max(44, (layout.isStacked ? text + cell : Math.max(text, cell)) + 2 * PAD);
  const cellTop = layout.isStacked ? PAD + text : (height - cell) / 2;
  // A single line stands beside the numbers, whose lamps are under them.
  const beside = hasLamp && text === TEXT.name.lineHeight ? cellTop + 2 : (height - text) / 2;
  const top = layout.isStacked ? PAD : beside;
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  if (isChosen)
    marks.push(
      { kind: 'rect', key: 'chosen', x: 0, y: 0, width, height, fill: 'water' },
      { kind: 'rect', key: 'edge', x: 0, y: 0, width: 3, height, fill: 'sea' },
    );
  if (row.rank !== null)
    marks.push(written([String(row.rank)], { key: 'rank', x: 8, y: top, style: TEXT.name, ink: 'ink2' }));
  marks.push(
    written(name, {
      key: 'name',
      x: layout.name.x,
      y: top,
      style: row.key === 'others' ? TEXT.body : TEXT.name,
      ink: 'ink',
    }),
  );
  if (more.length > 0)
    marks.push(
      written(more, {
        key: 'second',
        x: layout.name.x,
        y: top + name.length * TEXT.name.lineHeight,
        style: TEXT.second,
        ink: 'ink2',
      }),
    );
  if (row.assetId !== null)
    hits.push({
      key: RANKING_HITS.row + row.key,
      spoken: `${row.name}. ${isChosen ? 'Release the focus' : 'Focus on it'}`,
      shape: {
        kind: 'box',
        x: 0,
        y,
        width: layout.isStacked ? width : layout.cells.x,
        height: layout.isStacked ? PAD + text : height,
      },
    });
  row.values.forEach((value, i) => {
    const { x, width: own } = cellPlace(layout, columns.length, i);
    if (value === null) return;
    const { column } = columns[i];
    const options = { value, ...columns[i], isChosen, hasLamp };
    marks.push({ kind: 'group', key: `cell ${i}`, x, y: cellTop, marks: valueCell(options, own) });
    hits.push({
      key: RANKING_HITS.value + value.key,
      spoken: `${row.name}, ${[column.name, formatValue(value.value, column.unit, column.decimals), levelWord(value, column.band !== null)].filter(Boolean).join(' ')}. How it was made`,
      shape: {
        kind: 'box',
        x,
        y: layout.isStacked ? y + cellTop : y,
        width: own,
        height: layout.isStacked ? height - cellTop : height,
      },
    });
  });
  marks.push({ kind: 'path', key: 'rule', d: `M0 ${height - 0.5}H${width}`, stroke: 'line' });
  return { mark: { kind: 'group', key: row.key, y, marks }, hits, height };
}

/** Under the name: the level of the only measure, its share, the change of its rank. */
function rowWords({ columns, by, readout, decimals }: RankingData, row: RankedRow): string {
  const value = row.values[by];
  const { band } = columns[by];
  const state =
    columns.length === 1 && (band !== null || value.level === 'nodata')
      ? stateWords(value, band, decimals)
      : '';
  const share = row.share === null || readout.shares === 'none' ? '' : `${shareText(row.share)} of the total`;
  const running =
    row.running === null || readout.shares !== 'running' ? '' : `${shareText(row.running)} so far`;
  return listed([state, share, running, readout.moves ? moveWords(row) : '']);
}

/** How a rank has changed against the reference window: "up 2, was 5". */
export function moveWords({ rank, was }: Pick<RankedRow, 'rank' | 'was'>): string {
  if (rank === null) return '';
  if (was === null) return 'no rank before';
  if (was === rank) return 'same rank as before';
  return `${was > rank ? 'up' : 'down'} ${Math.abs(was - rank)}, was ${was}`;
}

const listed = (words: readonly string[]): string => words.filter((each) => each !== '').join(', ');

const spokenRow = ({ columns }: RankingData, { rank, name, values }: RankedRow): string =>
  `${rank === null ? 'no rank' : rank}. ${name} ${values
    .map((value, i) => formatValue(value.value, columns[i].unit, columns[i].decimals))
    .join(', ')}`;

/** Rank, name, every measure with its level, share and running share; the others last. */
function rankingTable(data: RankingData) {
  const { rows, others, columns } = data;
  const share = (each: number | null): number | null => (each === null ? null : each * 100);
  return groupsTable(
    columns,
    [
      ...rows.map((row) => ({
        lead: [row.rank, row.name],
        values: row.values,
        tail: [share(row.share), share(row.running), row.was],
      })),
      ...(others
        ? [
            {
              lead: [null, `${others.count} others`],
              values: others.values,
              tail: [share(others.share), null, null],
            },
          ]
        : []),
    ],
    {
      lead: [
        { name: 'Rank', unit: '' },
        { name: 'Name', unit: '' },
      ],
      tail: [
        { name: 'Share', unit: '%' },
        { name: 'So far', unit: '%' },
        { name: 'Rank before', unit: '' },
      ],
    },
  );
}
