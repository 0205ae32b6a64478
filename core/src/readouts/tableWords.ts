import { LEVEL_WORDS } from '../bands/targetBand';
import { groupCount } from './measureNames';
import { isThin, unfinishedWords } from './stateWords';
import type { Table } from './table';
import type { TableData, TableRow } from './tableData';
import { namesIn, parseExpression } from '../derive/parseExpression';
import { isNote, letterOf, type TableCell, type TableHead } from './tableColumns';
import { shownRows } from './tableLayout';
import { MOST_ACROSS } from './tableSwap';

/** What the table has, what is hidden, what its lamps mean. */
export function tableWords(data: TableData): string {
  const { groups, hidden, readout, total, heads, wrong, reachesBeyond } = data;
  const apart = heads.filter((head, i) => head.kind === 'measure' && total[i]?.value === null).length;
  return [
    `${groupCount(groups.length, readout.groupBy)}.`,
    unfinishedWords(data),
    reachesBeyond ? 'Periods are whole: the first or the last reaches beyond the window.' : '',
    readout.across === 'groups' && data.groups.length > MOST_ACROSS
      ? `The first ${MOST_ACROSS} are columns.`
      : '',
    readout.across === 'groups' &&
    (readout.steps.length > 0 || (readout.periods !== 'none' && readout.periodsAs === 'rows'))
      ? 'What lies inside them is shown where groups are rows.'
      : '',
    data.tooManyForNotes ? 'There are too many rows for what the logs say of each.' : '',
    heads.some(({ kind }) => kind === 'stops')
      ? 'Stops are those of the stop log, with what lies below.'
      : '',
    hidden > 0 ? `${hidden} rows without such a level are hidden.` : '',
    apart > 0 && readout.groupBy ? 'A dash under a column: its values cannot be put together.' : '',
    ...[...wrong.entries()].map(([i, why]) => `${readout.computed[i].name} cannot be worked out: ${why}`),
  ]
    .filter((each) => each !== '')
    .join(' ');
}

/** How a cell of a computed column was worked out. */
export interface ComputedMaking {
  /** "a / c". */
  readonly expression: string;
  /** The measures in it, by their letters. */
  readonly terms: readonly { readonly letter: string; readonly head: TableHead; readonly cell: TableCell }[];
}

/**
 * How a cell of a computed column was worked out; null of any other cell.
 * @param cells of its row.
 */
export function computedMaking(
  { heads, readout }: Pick<TableData, 'heads' | 'readout'>,
  cells: readonly TableCell[],
  at: number,
): ComputedMaking | null {
  const computed =
    heads[at]?.kind === 'computed' ? readout.computed[Number(heads[at].key.split(' ')[1])] : undefined;
  if (!computed) return null;
  const used = new Set(namesIn(parseExpression(computed.expression)));
  const measures = heads.flatMap((head, i) => (head.kind === 'measure' ? [{ head, cell: cells[i] }] : []));
  return {
    expression: computed.expression,
    terms: measures.flatMap((each, i) => (used.has(letterOf(i)) ? [{ letter: letterOf(i), ...each }] : [])),
  };
}

/**
 * Every row with the names around it, and every column; the total last. Small trends are a column for each of their periods.
 */
export function tableRows(data: TableData): Table {
  if (data.readout.across === 'groups') return acrossRows(data);
  const { heads, rows, total, courses } = data;
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
      ...heads.flatMap(({ kind, name, unit, band }) => {
        if (kind === 'trend') return courses.map((period) => ({ name: `${name}, ${period}`, unit }));
        const beside = band ? ['level'] : isNote(kind) ? ['in words'] : [];
        return [{ name, unit }, ...beside.map((word) => ({ name: `${name}, ${word}`, unit: '' }))];
      }),
    ],
    rows: [
      ...all.map((row) => [
        ...Array.from({ length: depth + 1 }, (_, i) => nameAt(row, i)),
        ...cellsToRow(row.cells, data),
      ]),
      ['Together', ...Array<null>(depth).fill(null), ...cellsToRow(total, data)],
    ],
  };
}

const cellsToRow = (
  cells: readonly TableCell[],
  { heads, courses }: Pick<TableData, 'heads' | 'courses'>,
): (string | number | null)[] =>
  heads.flatMap(({ kind, band }, i) =>
    kind === 'trend'
      ? courses.map((_, p) => cells[i].course?.[p] ?? null)
      : [cells[i].value, ...(band ? [levelWord(cells[i])] : isNote(kind) ? [cells[i].text ?? null] : [])],
  );

const levelWord = (cell: TableCell): string | null =>
  cell.value === null || isThin(cell) ? null : LEVEL_WORDS[cell.level];

/** A column for each group; what is judged has a row of its levels. */
const acrossRows = ({ heads, rows }: TableData): Table => ({
  columns: ['Name', ...heads.map(({ name }) => name)].map((name) => ({ name, unit: '' })),
  rows: rows.flatMap(({ name, cells, head }) => [
    [name, ...cells.map(({ value }) => value)],
    ...(head?.band ? [[`${head.name}, level`, ...cells.map(levelWord)]] : []),
  ]),
});
