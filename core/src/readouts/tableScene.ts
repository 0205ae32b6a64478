import { LEVEL_WORDS, LEVELS } from '../bands/targetBand';
import { fittedText } from '../drawing/fittedText';
import { knownExtent } from '../drawing/knownExtent';
import { lampMark } from '../drawing/lampScene';
import type { HitRegion, Mark, Scene } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { barScale } from '../drawing/valueBar';
import { TEXT, written } from './scene/words';
import { cellMarks, tableCellWords, partsOfCell } from './tableCells';
import { isNote, type TableHead } from './tableColumns';
import type { TableData, TableRow } from './tableData';
import { arrowOf, headOfCells, headOfNames, heightOfHead, TABLE_HITS } from './tableHeads';
import { cellText, INSIDE, ROW, type LaidColumn, type ShownRow } from './tableLayout';

const { indent: INDENT, mark: MARK, lamp: LAMP } = INSIDE;

export interface PartsOptions {
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
  const headHeight = Math.max(ROW.finger, ...columns.map((column) => heightOfHead(data, column)));
  return {
    headNames: headOfNames(data, names, headHeight),
    headCells: headOfCells(data, columns, { wide, height: headHeight, focus: options.focus }),
    names: namesOf(data, options),
    cells: cellsScene(data, options, wide),
    ...(data.total.length > 0
      ? {
          totalNames: totalName(names, options.rowHeight),
          totalCells: totalCells(data, columns, wide, options.rowHeight),
        }
      : { totalNames: NO_SCENE, totalCells: NO_SCENE }),
  };
}

const NO_SCENE: Scene = { width: 0, height: 0, marks: [], hits: [], spoken: '' };

const isChosen = ({ assetId }: TableRow, focus: string | null): boolean =>
  focus !== null && assetId === focus;

function namesOf(data: TableData, { rows, names: width, focus, rowHeight }: PartsOptions): Scene {
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  rows.forEach(({ row, isOpen }, i) => {
    const y = i * rowHeight;
    const x = row.depth * INDENT;
    const middle = rowHeight / 2;
    const style = row.parts.length > 0 ? TEXT.name : TEXT.body;
    const name = `${row.head ? arrowOf(data, row.head.at) : ''}${row.name}`;
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
      written([fittedText(name, style.face, style.size, width - x - MARK - 4)], {
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
    if (row.head)
      hits.push({
        key: `${TABLE_HITS.sort}${row.head.at}`,
        spoken: `Sort by ${row.head.name}`,
        shape: { kind: 'box', x: 0, y, width, height: rowHeight },
      });
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

function cellsScene(data: TableData, { rows, columns, focus, rowHeight }: PartsOptions, wide: number): Scene {
  const marks: Mark[] = [];
  const hits: HitRegion[] = [];
  rows.forEach(({ row }, i) => {
    const y = i * rowHeight;
    const chosen = isChosen(row, focus);
    const own: Mark[] = chosen
      ? [{ kind: 'rect', key: 'chosen', x: 0, y: 0, width: wide, height: rowHeight, fill: 'water' }]
      : [];
    const scale =
      row.head && barScale(knownExtent(row.cells.slice(0, -1).map(({ value }) => value)), row.head.band);
    let x = 0;
    for (const column of columns) {
      const cell = row.cells[column.at];
      const head = row.head ?? column.head;
      own.push({
        kind: 'group',
        key: column.head.key,
        x,
        marks: cellMarks(
          cell,
          { ...column, head, ...(scale && { scale }) },
          { rowHeight, chosen, isSum: row.parts.length > 0, parts: partsOfCell(data, row, column) },
        ),
      });
      if (isMade(head, row.head !== null))
        hits.push({
          key: `${TABLE_HITS.made}${column.at} ${row.key}`,
          spoken: `${row.name}, ${tableCellWords(cell, head)}. How it was worked out`,
          shape: { kind: 'box', x, y, width: column.width, height: rowHeight },
        });
      if (cell.text)
        hits.push({
          key: `${TABLE_HITS.note}${column.at} ${row.key}`,
          spoken: `${row.name}, ${head.name} ${cellText(cell.value, head)}: ${cell.text}`,
          shape: { kind: 'box', x, y, width: column.width, height: rowHeight },
        });
      if (cell.of)
        hits.push({
          key: `${TABLE_HITS.value}${column.at} ${row.key}`,
          spoken: `${row.head ? `${column.head.name}, ` : ''}${row.head ? '' : `${row.name}, `}${tableCellWords(cell, head)}. How it was made`,
          shape: { kind: 'box', x, y, width: column.width, height: rowHeight },
        });
      x += column.width;
    }
    own.push({ kind: 'path', key: 'rule', d: `M0 ${rowHeight - 0.5}H${wide}`, stroke: 'line' });
    marks.push({ kind: 'group', key: row.key, y, marks: own });
  });
  return { width: wide, height: rows.length * rowHeight, marks, hits, spoken: '' };
}

/** Whether a cell is worked out of the others of its row; with groups as columns those are not in its row. */
const isMade = ({ kind }: TableHead, isSwapped: boolean): boolean => kind === 'computed' && !isSwapped;

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
    if (!isNote(column.head.kind))
      marks.push({
        kind: 'group',
        key: column.head.key,
        x,
        // A bar of the whole would dwarf all others.
        marks: cellMarks(cell, { ...column, bars: false }, { rowHeight: height, chosen: false, isSum: true }),
      });
    if (isMade(column.head, false))
      hits.push({
        key: `${TABLE_HITS.made}${column.at} `,
        spoken: `Together, ${tableCellWords(cell, column.head)}. How it was worked out`,
        shape: { kind: 'box', x, y: 0, width: column.width, height },
      });
    if (cell.of)
      hits.push({
        key: `${TABLE_HITS.value}${column.at} `,
        spoken: `Together, ${tableCellWords(cell, column.head)}. How it was made`,
        shape: { kind: 'box', x, y: 0, width: column.width, height },
      });
    x += column.width;
  }
  return { width: wide, height, marks, hits, spoken: '' };
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
