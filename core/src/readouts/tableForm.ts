import * as yup from 'yup';
import { LEVEL_WORDS, LEVELS } from '../bands/targetBand';
import { MAX_MEASURES } from '../domain/measure';
import { fittedText } from '../drawing/fittedText';
import { knownExtent } from '../drawing/knownExtent';
import { lampMark } from '../drawing/lampScene';
import type { HitRegion, Mark, Scene } from '../drawing/scene';
import { placed } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { barScale, valueBar, type BarScale } from '../drawing/valueBar';
import { formatNumber, formatValue } from '../format/format';
import { asked } from './ask';
import { groupCount } from './measureNames';
import { moreBandsField } from './moreBands';
import { ONE_VALUE } from './oneValue';
import type { ReadoutFormOf } from './readoutForm';
import { TEXT, wrapped, written } from './scene/words';
import { isLit, isThin, unfinishedWords } from './stateWords';
import type { Table } from './table';
import {
  BESIDE,
  tableData,
  tableRequests,
  type TableHead,
  type TableCell,
  type TableChoices,
  type TableData,
  type TableRow,
} from './tableData';

const measureIndex = () =>
  yup
    .number()
    .integer()
    .min(0)
    .max(MAX_MEASURES - 1)
    .required();

/** Rows of groups inside groups with several measures, what stands beside them, and columns worked out of them. */
export const tableForm: ReadoutFormOf<TableChoices, TableData> = {
  ...ONE_VALUE,
  label: 'Table',
  groupedMeasures: 'all',
  splits: true,
  columns: { one: 6, many: 8 },
  fields: {
    cells: asked(
      yup
        .string()
        .oneOf(['bars', 'numbers'] as const)
        .default('bars'),
      { label: 'Cells', words: { bars: 'numbers with bars', numbers: 'numbers alone' } },
    ),
    only: asked(
      yup
        .string()
        .oneOf(['all', 'beyond', 'breach'] as const)
        .default('all'),
      {
        label: 'Rows',
        words: { all: 'all', beyond: 'only those in Caution or Breach', breach: 'only those in Breach' },
      },
    ),
    beside: yup
      .array(
        yup
          .object({ measure: measureIndex(), show: yup.string().oneOf(BESIDE).required() })
          .noUnknown()
          .required(),
      )
      .max(40)
      .default([]),
    recentDays: yup.number().integer().min(1).max(366).default(7),
    computed: yup
      .array(
        yup
          .object({
            name: yup.string().trim().min(1).max(80).required(),
            expression: yup.string().trim().min(1).max(400).required(),
            unit: yup.string().max(40).defined(),
          })
          .noUnknown()
          .required(),
      )
      .max(10)
      .default([]),
    sort: yup
      .array(
        yup
          .object({
            column: yup.number().integer().min(-1).max(200).required(),
            descending: yup.boolean().required(),
          })
          .noUnknown()
          .required(),
      )
      .max(5)
      .default([]),
    moreBands: moreBandsField,
  },
  defaults: { cells: 'bars', only: 'all', beside: [], recentDays: 7, computed: [], sort: [], moreBands: [] },
  requests: tableRequests,
  data: tableData,
  scene: (data, { width, focus }) => {
    const rows = shownRows(data.rows, () => true).slice(0, MOST_IN_PICTURE);
    const { names, columns } = tableLayout(data, width, null);
    const fitting = columns.filter(
      (_, i) => names + columns.slice(0, i + 1).reduce((sum, each) => sum + each.width, 0) <= width + 1,
    );
    const shown = fitting.length > 0 ? fitting : columns.slice(0, 1);
    const parts = tableParts(data, { rows, names, columns: shown, focus, rowHeight: ROW.pointer });
    return joined(data, parts, names, width, columns.length - shown.length);
  },
  table: tableRows,
};

/** Heights of rows for a pointer and for fingers, px. */
export const ROW = { pointer: 36, finger: 44 } as const;
/** Rows in a picture; all are in its file. */
const MOST_IN_PICTURE = 60;
const INDENT = 18;
const MARK = 22;
const PAD = 10;
const LAMP = 14;
const BAR = 64;

/** Parts of the keys of hit regions that say what a tap does. */
export const TABLE_HITS = { sort: 'sort ', open: 'open ', row: 'row ', value: 'value ' } as const;

/** A row as it is drawn: one of those that are open. */
export interface ShownRow {
  readonly row: TableRow;
  readonly isOpen: boolean;
}

/** Rows one under another: parts of a row only where it is open. */
export function shownRows(rows: readonly TableRow[], isOpen: (key: string) => boolean): ShownRow[] {
  return rows.flatMap((row) => {
    const open = row.parts.length > 0 && isOpen(row.key);
    return [{ row, isOpen: open }, ...(open ? shownRows(row.parts, isOpen) : [])];
  });
}

/** A column with its place in the table. */
export interface LaidColumn {
  readonly at: number;
  readonly head: TableHead;
  readonly width: number;
  /** Room for its widest number, px. */
  readonly room: number;
  readonly scale: BarScale;
}

/**
 * Widths of the names and of the columns; together they may be wider than there is room, and are then scrolled.
 * @param only the only column that is shown; null = all.
 */
export function tableLayout(
  data: TableData,
  width: number,
  only: number | null,
): { readonly names: number; readonly columns: readonly LaidColumn[] } {
  const all = shownRows(data.rows, () => true);
  const hasBars = data.readout.cells === 'bars';
  const longest = Math.max(
    60,
    ...all.map(({ row }) => row.depth * INDENT + MARK + textWidth(row.name, TEXT.name.face, TEXT.name.size)),
  );
  const columns = data.heads.flatMap((head, at): LaidColumn[] => {
    if (only !== null && at !== only) return [];
    const values = all.map(({ row }) => row.cells[at].value);
    // The widest number is one of the ends: the whole, the largest or the smallest.
    const texts = [...knownExtent(values), data.total[at].value, null].map((value) => cellText(value, head));
    const room = Math.max(...texts.map((text) => textWidth(text, TEXT.figure.face, TEXT.figure.size)));
    const bar = hasBars && head.kind === 'measure' ? BAR + 8 : 0;
    const lamp = head.band ? LAMP + 6 : 0;
    return [
      {
        at,
        head,
        room,
        width: Math.max(76, room + bar + lamp + 2 * PAD),
        scale: barScale(knownExtent(values), head.band),
      },
    ];
  });
  const least = columns.reduce((sum, each) => sum + each.width, 0);
  const names = Math.min(longest + PAD, Math.max(110, width - least), Math.max(110, width * 0.45));
  // What is left over goes to the columns, so that bars are longer.
  const over = Math.max(0, width - names - least) / Math.max(1, columns.length);
  return { names, columns: columns.map((each) => ({ ...each, width: each.width + over })) };
}

const cellText = (value: number | null, { decimals }: TableHead): string =>
  value === null ? '–' : formatNumber(value, decimals);

interface PartsOptions {
  readonly rows: readonly ShownRow[];
  readonly names: number;
  readonly columns: readonly LaidColumn[];
  readonly focus: string | null;
  readonly rowHeight: number;
}

/** The four parts of a table, which scroll apart: heads and rows, of the names and of the columns. */
export interface TableParts {
  readonly headNames: Scene;
  readonly headCells: Scene;
  readonly names: Scene;
  readonly cells: Scene;
  readonly totalNames: Scene;
  readonly totalCells: Scene;
}

export function tableParts(data: TableData, options: PartsOptions): TableParts {
  const { names, columns } = options;
  const wide = columns.reduce((sum, each) => sum + each.width, 0);
  const lines = Math.max(1, ...columns.map(({ head, width }) => headLines(head, width).length));
  const headHeight = Math.max(ROW.finger, lines * TEXT.caption.lineHeight + 12);
  return {
    headNames: headOfNames(data, names, headHeight),
    headCells: headOfCells(data, columns, wide, headHeight),
    names: namesOf(options),
    cells: cellsScene(options, wide),
    totalNames: totalName(names, options.rowHeight),
    totalCells: totalCells(data, columns, wide, options.rowHeight),
  };
}

const headLines = ({ name, unit }: TableHead, width: number): string[] =>
  wrapped([name, unit].filter(Boolean).join(', '), TEXT.caption, width - 2 * PAD);

const arrowOf = ({ readout }: TableData, column: number): string => {
  const at = readout.sort.findIndex((each) => each.column === column);
  if (at < 0) return '';
  return `${readout.sort[at].descending ? '↓' : '↑'}${at > 0 ? at + 1 : ''} `;
};

function headOfNames(data: TableData, width: number, height: number): Scene {
  const word = `${arrowOf(data, -1)}Name`;
  return {
    width,
    height,
    marks: [
      written([word], {
        key: 'name',
        x: MARK,
        y: height - TEXT.caption.lineHeight - 5,
        style: TEXT.caption,
        ink: 'ink2',
      }),
      { kind: 'path', key: 'rule', d: `M0 ${height - 0.5}H${width}`, stroke: 'line2' },
    ],
    hits: [
      {
        key: `${TABLE_HITS.sort}-1`,
        spoken: 'Sort by name',
        shape: { kind: 'box', x: 0, y: 0, width, height },
      },
    ],
    spoken: '',
  };
}

function headOfCells(data: TableData, columns: readonly LaidColumn[], wide: number, height: number): Scene {
  const marks: Mark[] = [{ kind: 'path', key: 'rule', d: `M0 ${height - 0.5}H${wide}`, stroke: 'line2' }];
  const hits: HitRegion[] = [];
  let x = 0;
  for (const { at, head, width } of columns) {
    const arrow = arrowOf(data, at);
    const lines = headLines({ ...head, name: arrow + head.name }, width);
    marks.push(
      written(lines, {
        key: head.key,
        x: x + width - PAD,
        y: height - lines.length * TEXT.caption.lineHeight - 5,
        style: arrow === '' ? TEXT.caption : { ...TEXT.caption, face: 'strong' },
        ink: arrow === '' ? 'ink2' : 'ink',
        anchor: 'end',
      }),
    );
    hits.push({
      key: `${TABLE_HITS.sort}${at}`,
      spoken: `Sort by ${head.name}`,
      shape: { kind: 'box', x, y: 0, width, height },
    });
    x += width;
  }
  return { width: wide, height, marks, hits, spoken: '' };
}

const isChosen = ({ assetId }: TableRow, focus: string | null): boolean =>
  focus !== null && assetId === focus;

function namesOf({ rows, names: width, focus, rowHeight }: PartsOptions): Scene {
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  rows.forEach(({ row, isOpen }, i) => {
    const y = i * rowHeight;
    const x = row.depth * INDENT;
    const middle = rowHeight / 2;
    const style = row.parts.length > 0 ? TEXT.name : TEXT.body;
    const own: Mark[] = isChosen(row, focus)
      ? [
          { kind: 'rect', key: 'chosen', x: 0, y: 0, width, height: rowHeight, fill: 'water' },
          { kind: 'rect', key: 'edge', x: 0, y: 0, width: 3, height: rowHeight, fill: 'sea' },
        ]
      : [];
    if (row.parts.length > 0)
      own.push({
        kind: 'path',
        key: 'open',
        d: isOpen ? `M${x + 6} ${middle - 3}l5 6l5 -6` : `M${x + 8} ${middle - 5}l6 5l-6 5`,
        stroke: 'ink',
        strokeWidth: 1.8,
        round: true,
      });
    own.push(
      written([fittedText(row.name, style.face, style.size, width - x - MARK - 4)], {
        key: 'name',
        x: x + MARK,
        y: middle - style.lineHeight / 2,
        style,
        ink: 'ink',
      }),
      { kind: 'path', key: 'rule', d: `M0 ${rowHeight - 0.5}H${width}`, stroke: 'line' },
    );
    marks.push({ kind: 'group', key: row.key, y, marks: own });
    const toName = row.parts.length > 0 ? x + MARK : 0;
    if (row.parts.length > 0)
      hits.push({
        key: TABLE_HITS.open + row.key,
        spoken: `${isOpen ? 'Close' : 'Open'} ${row.name}`,
        shape: { kind: 'box', x: 0, y, width: row.assetId === null ? width : toName, height: rowHeight },
      });
    if (row.assetId !== null)
      hits.push({
        key: TABLE_HITS.row + row.key,
        spoken: `${row.name}. ${isChosen(row, focus) ? 'Release the focus' : 'Focus on it'}`,
        shape: { kind: 'box', x: toName, y, width: width - toName, height: rowHeight },
      });
  });
  return { width, height: rows.length * rowHeight, marks, hits, spoken: '' };
}

function cellsScene({ rows, columns, focus, rowHeight }: PartsOptions, wide: number): Scene {
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  rows.forEach(({ row }, i) => {
    const y = i * rowHeight;
    const chosen = isChosen(row, focus);
    const own: Mark[] = chosen
      ? [{ kind: 'rect', key: 'chosen', x: 0, y: 0, width: wide, height: rowHeight, fill: 'water' }]
      : [];
    let x = 0;
    for (const column of columns) {
      const cell = row.cells[column.at];
      own.push({
        kind: 'group',
        key: column.head.key,
        x,
        marks: cellMarks(cell, column, rowHeight, chosen, row.parts.length > 0),
      });
      if (cell.of)
        hits.push({
          key: `${TABLE_HITS.value}${column.at} ${row.key}`,
          spoken: `${row.name}, ${cellWords(cell, column.head)}. How it was made`,
          shape: { kind: 'box', x, y, width: column.width, height: rowHeight },
        });
      x += column.width;
    }
    own.push({ kind: 'path', key: 'rule', d: `M0 ${rowHeight - 0.5}H${wide}`, stroke: 'line' });
    marks.push({ kind: 'group', key: row.key, y, marks: own });
  });
  return { width: wide, height: rows.length * rowHeight, marks, hits, spoken: '' };
}

const cellWords = (cell: TableCell, { name, unit, decimals, band }: TableHead): string =>
  [
    `${name} ${formatValue(cell.value, unit, decimals)}`,
    isThin(cell) ? `coverage ${formatNumber(cell.coverage * 100, 0)} %` : band ? LEVEL_WORDS[cell.level] : '',
  ]
    .filter(Boolean)
    .join(', ');

function cellMarks(
  cell: TableCell,
  { head, width, room, scale }: LaidColumn,
  height: number,
  chosen: boolean,
  isSum: boolean,
): Mark[] {
  const right = width - PAD;
  const middle = height / 2;
  const style = isSum ? TEXT.figure : { ...TEXT.figure, face: 'medium' as const };
  const lamp = head.band ? LAMP + 6 : 0;
  const bar = right - room - lamp - 8 - PAD;
  const hasBar = head.kind === 'measure' && bar >= 28 && cell.value !== null;
  return [
    ...(hasBar
      ? [
          {
            kind: 'group',
            key: 'bar',
            x: PAD,
            y: middle,
            marks: valueBar({ ...cell, band: head.band, scale, isChosen: chosen }, bar),
          } as const,
        ]
      : []),
    ...(head.band && isLit(cell, head.band) && cell.value !== null
      ? [lampMark(cell.level, 'lamp', right - room - lamp, middle - LAMP / 2, LAMP)]
      : []),
    {
      kind: 'text',
      key: 'number',
      words: [{ x: right, y: middle + 6, text: cellText(cell.value, head) }],
      face: style.face,
      size: 16,
      ink: isThin(cell) ? 'ink3' : 'ink',
      anchor: 'end',
    },
  ];
}

const totalName = (width: number, height: number): Scene => ({
  width,
  height,
  marks: [
    { kind: 'path', key: 'line', d: `M0 0.5H${width}`, stroke: 'ink2' },
    written(['Together'], {
      key: 'name',
      x: MARK,
      y: (height - TEXT.name.lineHeight) / 2,
      style: TEXT.name,
      ink: 'ink',
    }),
  ],
  hits: [],
  spoken: '',
});

function totalCells(data: TableData, columns: readonly LaidColumn[], wide: number, height: number): Scene {
  const marks: Mark[] = [{ kind: 'path', key: 'line', d: `M0 0.5H${wide}`, stroke: 'ink2' }];
  const hits: HitRegion[] = [];
  let x = 0;
  for (const column of columns) {
    const cell = data.total[column.at];
    marks.push({
      kind: 'group',
      key: column.head.key,
      x,
      // A bar of the whole would dwarf all others.
      marks: cellMarks(cell, { ...column, head: { ...column.head, kind: 'computed' } }, height, false, true),
    });
    if (cell.of)
      hits.push({
        key: `${TABLE_HITS.value}${column.at} `,
        spoken: `Together, ${cellWords(cell, column.head)}. How it was made`,
        shape: { kind: 'box', x, y: 0, width: column.width, height },
      });
    x += column.width;
  }
  return { width: wide, height, marks, hits, spoken: '' };
}

/** What the table has, what is hidden, what its lamps mean. */
export function tableWords(data: TableData): string {
  const { groups, hidden, readout, total, heads, wrong } = data;
  const apart = heads.filter((head, i) => head.kind === 'measure' && total[i].value === null).length;
  return [
    `${groupCount(groups.length, readout.groupBy)}.`,
    unfinishedWords(data),
    hidden > 0 ? `${hidden} rows without such a level are hidden.` : '',
    apart > 0 && readout.groupBy ? 'A dash under a column: its values cannot be put together.' : '',
    ...[...wrong.entries()].map(([i, why]) => `${readout.computed[i].name} cannot be worked out: ${why}`),
  ]
    .filter((each) => each !== '')
    .join(' ');
}

/** The lamps of a table with their words. */
export function lampLegend({ heads }: TableData, width: number): Scene {
  if (!heads.some(({ band }) => band)) return { width, height: 0, marks: [], hits: [], spoken: '' };
  let x = 0;
  const marks = LEVELS.filter((level) => level !== 'nodata').flatMap((level): Mark[] => {
    const word = LEVEL_WORDS[level];
    const at = x;
    x += LAMP + 4 + textWidth(word, TEXT.caption.face, TEXT.caption.size) + 14;
    return [
      lampMark(level, `lamp ${level}`, at, 1, LAMP),
      written([word], { key: level, x: at + LAMP + 4, y: 0, style: TEXT.caption, ink: 'ink2' }),
    ];
  });
  return { width, height: TEXT.caption.lineHeight + 2, marks, hits: [], spoken: '' };
}

/** All parts in one picture. */
function joined(data: TableData, parts: TableParts, names: number, width: number, dropped: number): Scene {
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  let y = 0;
  const put = (key: string, left: Scene, right: Scene): void => {
    for (const [scene, x] of [
      [left, 0],
      [right, names],
    ] as const) {
      const at = placed(scene, `${key} ${x}`, x, y);
      marks.push(...at.marks);
      hits.push(...at.hits);
    }
    y += left.height;
  };
  put('head', parts.headNames, parts.headCells);
  put('rows', parts.names, parts.cells);
  put('total', parts.totalNames, parts.totalCells);
  const legend = placed(lampLegend(data, width), 'legend', 0, y + 6);
  marks.push(...legend.marks);
  y += 6 + lampLegend(data, width).height;
  const left = data.rows.length > 0 ? shownRows(data.rows, () => true).length - MOST_IN_PICTURE : 0;
  const words = [
    tableWords(data),
    left > 0 ? `${left} more rows are in its file.` : '',
    dropped > 0 ? `${dropped} more columns are in its file.` : '',
  ];
  const note = wrapped(words.filter(Boolean).join(' '), TEXT.caption, width);
  marks.push(written(note, { key: 'note', x: 0, y, style: TEXT.caption, ink: 'ink2' }));
  return {
    width,
    height: y + note.length * TEXT.caption.lineHeight,
    marks,
    hits,
    spoken: tableWords(data),
  };
}

/** Every row with the names around it, its depth, and every column; the total last. */
export function tableRows(data: TableData): Table {
  const { heads, rows, total } = data;
  const all = shownRows(rows, () => true).map(({ row }) => row);
  const depth = Math.max(0, ...all.map((row) => row.depth));
  const nameAt = ({ path, name }: TableRow, level: number): string | null =>
    level < path.length ? path[level] : level === path.length ? name : null;
  return {
    columns: [
      ...Array.from({ length: depth + 1 }, (_, i) => ({
        name: i === 0 ? 'Name' : `Name, level ${i + 1}`,
        unit: '',
      })),
      ...heads.flatMap(({ name, unit, band }) => [
        { name, unit },
        ...(band ? [{ name: `${name}, level`, unit: '' }] : []),
      ]),
    ],
    rows: [
      ...all.map((row) => [
        ...Array.from({ length: depth + 1 }, (_, i) => nameAt(row, i)),
        ...cellsToRow(row.cells, heads),
      ]),
      ['Together', ...Array<null>(depth).fill(null), ...cellsToRow(total, heads)],
    ],
  };
}

const cellsToRow = (cells: readonly TableCell[], heads: readonly TableHead[]): (string | number | null)[] =>
  heads.flatMap(({ band }, i) => [
    cells[i].value,
    ...(band ? [cells[i].value === null || isThin(cells[i]) ? null : LEVEL_WORDS[cells[i].level]] : []),
  ]);
