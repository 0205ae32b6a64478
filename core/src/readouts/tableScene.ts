import { LEVEL_WORDS, LEVELS } from '../bands/targetBand';
import { fittedText } from '../drawing/fittedText';
import { knownExtent } from '../drawing/knownExtent';
import { lampMark } from '../drawing/lampScene';
import { linePath } from '../drawing/linePath';
import type { HitRegion, Mark, Scene } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { barScale, valueBar } from '../drawing/valueBar';
import { formatNumber, formatValue } from '../format/format';
import { TEXT, wrapped, written } from './scene/words';
import { isLit, isThin } from './stateWords';
import type { TableData, TableRow } from './tableData';
import { isNote, type TableCell, type TableHead } from './tableColumns';
import { cellText, hasBar, INSIDE, ROW, type LaidColumn, type ShownRow } from './tableLayout';

const { indent: INDENT, mark: MARK, pad: PAD, lamp: LAMP } = INSIDE;
const COURSE_HEIGHT = 20;

/** Parts of the keys of hit regions that say what a tap does. */
export const TABLE_HITS = {
  sort: 'sort ',
  open: 'open ',
  row: 'row ',
  value: 'value ',
  note: 'note ',
} as const;

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
  const lines = Math.max(1, ...columns.map(({ head, width }) => headLines(head, width).length));
  const headHeight = Math.max(ROW.finger, lines * TEXT.caption.lineHeight + 12);
  return {
    headNames: headOfNames(data, names, headHeight),
    headCells: headOfCells(data, columns, wide, headHeight),
    names: namesOf(data, options),
    cells: cellsScene(options, wide),
    ...(data.total.length > 0
      ? {
          totalNames: totalName(names, options.rowHeight),
          totalCells: totalCells(data, columns, wide, options.rowHeight),
        }
      : { totalNames: NO_SCENE, totalCells: NO_SCENE }),
  };
}

const NO_SCENE: Scene = { width: 0, height: 0, marks: [], hits: [], spoken: '' };

const headLines = ({ name, unit, kind }: TableHead, width: number): string[] =>
  // A course on a scale of its own has no numbers that a unit would be of.
  wrapped([name, kind === 'trend' ? '' : unit].filter(Boolean).join(', '), TEXT.caption, width - 2 * PAD);

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
    const arrow = head.kind === 'group' ? '' : arrowOf(data, at);
    const lines = headLines({ ...head, name: arrow + head.name }, width);
    marks.push(
      written(lines, {
        key: head.key,
        x: isNote(head.kind) ? x + PAD : x + width - PAD,
        y: height - lines.length * TEXT.caption.lineHeight - 5,
        style: arrow === '' ? TEXT.caption : { ...TEXT.caption, face: 'strong' },
        ink: arrow === '' ? 'ink2' : 'ink',
        anchor: isNote(head.kind) ? 'start' : 'end',
      }),
    );
    const shape = { kind: 'box', x, y: 0, width, height } as const;
    if (head.kind !== 'group')
      hits.push({ key: `${TABLE_HITS.sort}${at}`, spoken: `Sort by ${head.name}`, shape });
    else if (data.groups.some((group) => group.key === head.key && group.assetId !== null))
      hits.push({ key: TABLE_HITS.row + head.key, spoken: `${head.name}. Focus on it or release it`, shape });
    x += width;
  }
  return { width: wide, height, marks, hits, spoken: '' };
}

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

function cellsScene({ rows, columns, focus, rowHeight }: PartsOptions, wide: number): Scene {
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
          { rowHeight, chosen, isSum: row.parts.length > 0 },
        ),
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
          spoken: `${row.head ? `${column.head.name}, ` : ''}${row.head ? '' : `${row.name}, `}${cellWords(cell, head)}. How it was made`,
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

interface CellState {
  readonly rowHeight: number;
  readonly chosen: boolean;
  readonly isSum: boolean;
}

function cellMarks(
  cell: TableCell,
  { head, width, room, scale, bars }: Omit<LaidColumn, 'at'>,
  { rowHeight: height, chosen, isSum }: CellState,
): Mark[] {
  if (isNote(head.kind)) return noteMarks(cell, head, { width, room, height });
  if (head.kind === 'trend') return [courseMark(cell.course ?? [], width, height, chosen)];
  const right = width - PAD;
  const middle = height / 2;
  const style = isSum ? TEXT.figure : { ...TEXT.figure, face: 'medium' as const };
  const lamp = head.band ? LAMP + 6 : 0;
  const bar = right - room - lamp - 8 - PAD;
  const isBar = bars && hasBar(head) && bar >= 28 && cell.value !== null;
  return [
    ...(isBar
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

/** What the logs say: their number before the words, both from the left. */
function noteMarks(
  { value, text = '' }: TableCell,
  head: TableHead,
  { width, room, height }: { readonly width: number; readonly room: number; readonly height: number },
): Mark[] {
  const words = fittedText(text, TEXT.body.face, TEXT.body.size, width - 2 * PAD - room - 8);
  const at = (x: number, word: string): Mark => ({
    kind: 'text',
    key: `note ${x}`,
    words: [{ x, y: height / 2 + 5, text: word }],
    face: 'regular',
    size: TEXT.body.size,
    ink: value === null || value === 0 ? 'ink2' : 'ink',
  });
  if (value === null) return [at(PAD, '–')];
  return words === ''
    ? [at(PAD, value === 0 ? 'none' : cellText(value, head))]
    : [at(PAD, cellText(value, head)), at(PAD + room + 8, words)];
}

/** Values over time in a cell, on a scale of their own; missing ones leave a gap, one between gaps is a dot. */
function courseMark(
  course: readonly (number | null)[],
  width: number,
  height: number,
  chosen: boolean,
): Mark {
  const [low, high] = knownExtent(course);
  const top = (height - COURSE_HEIGHT) / 2;
  const x = (i: number): number => PAD + (i / Math.max(1, course.length - 1)) * (width - 2 * PAD);
  const y = (value: number): number =>
    top + (high === low ? 0.5 : 1 - (value - low) / (high - low)) * COURSE_HEIGHT;
  const at = course.map((_, i) => i);
  // A dot is a line of no length with a round end.
  const dots = at.filter(
    (i) => course[i] !== null && (course[i - 1] ?? null) === null && (course[i + 1] ?? null) === null,
  );
  const d = [
    linePath(at, course, x, y),
    ...dots.map((i) => `M${x(i).toFixed(1)} ${y(course[i]!).toFixed(1)}h0.1`),
  ].join('');
  return {
    kind: 'path',
    key: 'course',
    d,
    stroke: chosen ? 'sea' : 'ink',
    strokeWidth: 1.5,
    round: true,
  };
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
    if (!isNote(column.head.kind))
      marks.push({
        kind: 'group',
        key: column.head.key,
        x,
        // A bar of the whole would dwarf all others.
        marks: cellMarks(cell, { ...column, bars: false }, { rowHeight: height, chosen: false, isSum: true }),
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
