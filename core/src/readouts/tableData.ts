import { scaleEnds } from '../bands/scaleEnds';
import { shortfallOf } from '../bands/shortfall';
import { evaluate } from '../derive/evaluate';
import type { Node } from '../derive/parseExpression';
import { decimalsFor, formatNumber } from '../format/format';
import { ranksOf } from '../stats/ranks';
import { DAY_MS } from '../time/lengths';
import { compareNames } from '../text/compareNames';
import type { Interval } from '../time/interval';
import { groupsData, type GroupRow, type GroupsData, type MeasureColumn } from './groupsData';
import { isProblem, type Problem, type ReadingAnswers, type ReadoutInputs } from './readoutData';
import { levelFor, type ReadoutValue } from './readoutValues';
import type { SortedColumn, TableChoices } from './tableChoices';
import {
  bandOfStretch,
  columnsOfTable,
  isNote,
  measureOfLetter,
  type Column,
  type TableCell,
  type TableHead,
} from './tableColumns';
import {
  aroundOf,
  keyOfLine,
  layersOf,
  periodAnswers,
  withPeriods,
  type OtherStretch,
  type Line,
  type TableLayers,
} from './tableLines';
import { notesOf, type TableNotes } from './tableNotes';

export interface TableRow extends Pick<GroupRow, 'key' | 'name' | 'assetId'> {
  /** 0 = outermost. */
  readonly depth: number;
  /** Keys of the groups around it, outermost first. */
  readonly path: readonly string[];
  readonly cells: readonly TableCell[];
  readonly parts: readonly TableRow[];
  /** Its stretch of time, if it is a period. */
  readonly time: Interval | null;
  /** What its cells are, if columns are groups; null = their columns say it. */
  readonly head: (TableHead & { readonly at: number }) | null;
}

export interface TableData extends GroupsData<TableChoices> {
  readonly heads: readonly TableHead[];
  /** Outermost rows, sorted; each with its parts. */
  readonly rows: readonly TableRow[];
  /** Everything together; a cell without a value where it cannot be put together. [] if columns are groups. */
  readonly total: readonly TableCell[];
  /** Rows that are left out, because none of their values is on the level asked for. */
  readonly hidden: number;
  /** Why a computed column cannot be worked out, by its index. */
  readonly wrong: ReadonlyMap<number, string>;
  /** Whether periods reach beyond the window, so that they do not add up to it. */
  readonly reachesBeyond: boolean;
  /** Whether there are too many rows for what the logs say of each. */
  readonly tooManyForNotes: boolean;
  /** Names of the periods that small trends are made of, in order of time. */
  readonly courses: readonly string[];
  /** Of copies side by side: values of all of them, by the key of their column, which the scale of each fits too. */
  readonly besideHeads?: Readonly<Record<string, readonly number[]>>;
}

/** Copies with the bars of equal columns on one scale. */
export function tablesAlike(all: readonly TableData[]): readonly TableData[] {
  const beside: Record<string, number[]> = {};
  for (const { heads, rows } of all)
    heads.forEach(({ key }, at) => (beside[key] ??= []).push(...extentsOf(rows, at)));
  return all.map((data) => ({ ...data, besideHeads: beside }));
}

const extentsOf = (rows: readonly TableRow[], at: number): number[] =>
  rows.flatMap(({ cells, parts }) => [
    ...(cells[at]?.value == null ? [] : [cells[at].value]),
    ...extentsOf(parts, at),
  ]);

/** Most rows of one table, and most of its periods that are columns. */
const MOST_ROWS = 200_000;
const MOST_PERIODS = 400;

export function tableData(inputs: ReadoutInputs<TableChoices>, answers: ReadingAnswers): TableData | Problem {
  const { readout } = inputs;
  const tooMany = refuseTooMany(readout, answers);
  if (tooMany) return tooMany;
  const data = groupsData(inputs, answers);
  if (isProblem(data)) return data;
  const layers = layersOf(inputs, data, answers);
  const isByRow = readout.periods !== 'none' && readout.periodsAs === 'rows';
  const isByColumn = readout.periods !== 'none' && readout.periodsAs === 'columns';
  const { columns, wrong } = columnsOfTable(data, isByColumn ? layers.periods.map(({ name }) => name) : []);
  const lines = isByRow ? withPeriods(layers) : layers.window.lines;
  const notes = notesOf(inputs, answers);
  const cells = cellsOf(lines, columns, layers, notes);
  const rows = treeOf(lines, cells.lines);
  const kept = readout.only === 'all' ? rows : rows.flatMap((row) => keptOf(row, readout.only));
  const count = (all: readonly TableRow[]): number => all.reduce((n, { parts }) => n + 1 + count(parts), 0);
  const { start, end } = data.window;
  return {
    ...data,
    heads: columns.map((column, at) => headOf(column, at, cells.lines)),
    rows: sorted(kept, readout.sort),
    total: cells.total,
    hidden: count(rows) - count(kept),
    wrong,
    tooManyForNotes: notes?.tooMany ?? false,
    courses: layers.periods.flatMap(({ name, time }) => (time && time.end <= data.now ? [name] : [])),
    reachesBeyond:
      readout.periods !== 'none' &&
      layers.periods.some(
        ({ time }) => time !== null && (time.start < start || (time.end > end && end < data.now)),
      ),
  };
}

/** More periods than can be rows or columns; told before any is laid out. */
function refuseTooMany(
  readout: ReadoutInputs<TableChoices>['readout'],
  answers: ReadingAnswers,
): Problem | null {
  const [byPeriod] = periodAnswers(readout, answers);
  if (!byPeriod || readout.periods === 'none') return null;
  const periods = byPeriod.start.length;
  const isByRow = readout.periodsAs === 'rows';
  const most = isByRow ? MOST_ROWS : MOST_PERIODS;
  if ((isByRow ? byPeriod.groups.length * periods : periods) <= most) return null;
  const what = isByRow ? 'rows' : 'periods as columns';
  return {
    problem: {
      title: `Too many ${what}`,
      text: `A table has at most ${formatNumber(most, 0)} ${what}. Choose longer periods, a shorter window or fewer groups.`,
    },
  };
}

const NOTHING: TableCell = { value: null, level: 'nodata', coverage: 0, of: null };

/** The cells of all lines and of the total, column by column. */
function cellsOf(
  lines: readonly Line[],
  columns: readonly Column[],
  layers: TableLayers,
  notes: TableNotes | null,
): { readonly lines: readonly (readonly TableCell[])[]; readonly total: readonly TableCell[] } {
  const { data, window, recent, periods } = layers;
  const all = [...lines.map(({ row }) => row.values as readonly (ReadoutValue | null)[]), window.total];
  /** The value of the same place in another stretch of time. */
  const elsewhere = (beside: OtherStretch | null, i: number, measure: number): ReadoutValue | null =>
    (i < lines.length ? beside?.of(lines[i]) : beside?.total)?.[measure] ?? null;
  // The last, unfinished period would look like a fall.
  const whole = periods.filter(({ time }) => time !== null && time.end <= data.now);
  const byColumn = columns.map((column) => {
    if (column.node) return computedCells(column.node, all);
    const { kind } = column;
    if (isNote(kind)) return all.map((_, i) => (i < lines.length && notes?.cell(lines[i], kind)) || NOTHING);
    const measure = data.columns[column.measure];
    const ranks = column.kind === 'rank' ? ranksAmong(lines, column.measure) : [];
    return all.map((values, i): TableCell => {
      const value = values[column.measure];
      if (!value) return NOTHING;
      const isPeriod = i < lines.length && lines[i].time !== null;
      switch (column.kind) {
        case 'measure':
          return isPeriod ? stretchCell(value, measure) : judgedCell(value);
        case 'daily':
          return isPeriod ? NOTHING : dailyCell(value, measure, daysOf(data.window, data.now));
        case 'recentDaily':
          return isPeriod
            ? NOTHING
            : dailyCell(elsewhere(recent, i, column.measure), measure, data.readout.recentDays);
        case 'recent':
          if (isPeriod) return NOTHING;
          return stretchCell(elsewhere(recent, i, column.measure), measure);
        case 'period':
          return stretchCell(elsewhere(periods[column.period], i, column.measure), measure);
        case 'trend': {
          if (isPeriod) return NOTHING;
          const course = whole.map((period) => elsewhere(period, i, column.measure)?.value ?? null);
          return { ...plain(value.value, value), course };
        }
        case 'share': {
          const all = window.total[column.measure]?.value ?? null;
          const share = shareOf(value.value, all, measure.addsUp);
          return plain(share === null ? null : share * 100, value);
        }
        case 'rank':
          return plain(ranks[i] ?? null, value);
        case 'change':
          return plain(
            value.value === null || value.previous === null ? null : value.value - value.previous,
            value,
          );
        default: {
          const band = isPeriod ? bandOfStretch(measure) : measure.band;
          return plain(value.value === null || !band ? null : shortfallOf(band, value.value), value);
        }
      }
    });
  });
  const rows = all.map((_, i) => byColumn.map((cells) => cells[i]));
  return { lines: rows.slice(0, -1), total: rows[rows.length - 1] };
}

const judgedCell = (value: ReadoutValue): TableCell => ({
  value: value.value,
  level: value.level,
  coverage: value.coverage,
  of: value,
});

/** A value of another stretch than the window. One whose stretch cannot be told by wall-clock times opens nothing. */
function stretchCell(value: ReadoutValue | null, measure: MeasureColumn): TableCell {
  if (!value) return NOTHING;
  const level = levelFor(bandOfStretch(measure), value.value, value.coverage);
  const judged = { ...value, level };
  return { ...judgedCell(judged), of: value.over ? judged : null };
}

/** Days of a window that have passed. */
const daysOf = ({ start, end }: Interval, now: number): number =>
  Math.max(0, Math.min(end, now) - start) / DAY_MS;

/** An amount for each day with data; a mean, a share or a ratio is that of a day as well. */
function dailyCell(value: ReadoutValue | null, { addsUp }: MeasureColumn, days: number): TableCell {
  if (!value) return NOTHING;
  if (!addsUp) return plain(value.value, value);
  const counted = days * value.coverage;
  return plain(value.value === null || counted <= 0 ? null : value.value / counted, value);
}

const plain = (value: number | null, of: ReadoutValue): TableCell => ({
  value,
  level: value === null ? 'nodata' : 'clear',
  coverage: of.coverage,
  of,
});

const shareOf = (value: number | null, whole: number | null, adds: boolean): number | null =>
  !adds || value === null || whole === null || whole <= 0 || value < 0 ? null : value / whole;

/** The rank of each line among those around which the same groups lie. */
function ranksAmong(lines: readonly Line[], measure: number): readonly (number | null)[] {
  const out = new Array<number | null>(lines.length).fill(null);
  for (const at of siblingsOf(lines).values()) {
    const ranks = ranksOf(
      at.map((i) => lines[i].row.values[measure].value),
      'largest',
    );
    at.forEach((i, k) => (out[i] = ranks[k]));
  }
  return out;
}

/** Indices of lines by the groups around them, in order. */
function siblingsOf(lines: readonly Line[]): Map<string, number[]> {
  const found = new Map<string, number[]>();
  lines.forEach(({ path }, i) => {
    const around = aroundOf(path);
    const members = found.get(around);
    if (members) members.push(i);
    else found.set(around, [i]);
  });
  return found;
}

/** Arithmetic over the measures of each line: of the total over the totals, so that ratios are of sums. */
function computedCells(node: Node, all: readonly (readonly (ReadoutValue | null)[])[]): TableCell[] {
  const size = all.length;
  const of = (name: string): Float64Array => {
    const measure = measureOfLetter(name);
    return Float64Array.from(all, (values) => values[measure]?.value ?? NaN);
  };
  const results = evaluate(node, { size, of, hours: new Float64Array(size).fill(1), amounts: new Set() });
  return Array.from(results, (value, i): TableCell => {
    const known = all[i].filter((each) => each !== null);
    const coverage = Math.min(1, ...known.map((each) => each.coverage));
    return Number.isFinite(value) ? { value, level: 'clear', coverage, of: null } : { ...NOTHING, coverage };
  });
}

/** Lines as a tree: a line lies in the one whose path and name are its path. */
function treeOf(lines: readonly Line[], cells: readonly (readonly TableCell[])[]): TableRow[] {
  const parts = siblingsOf(lines);
  const below = (path: readonly string[]): TableRow[] =>
    (parts.get(aroundOf(path)) ?? []).map((i) => {
      const { row, depth, time } = lines[i];
      return {
        key: keyOfLine(lines[i]),
        name: depth === 0 || time !== null ? row.name : row.name.split(' / ').at(-1)!,
        assetId: row.assetId,
        depth,
        path,
        cells: cells[i],
        parts: below([...path, row.key]),
        time,
        head: null,
      };
    });
  return below([]);
}

/** A row with only those parts that have a value on the level asked for; [] without any. */
function keptOf(row: TableRow, only: TableChoices['only']): TableRow[] {
  const parts = row.parts.flatMap((part) => keptOf(part, only));
  const isMeant = ({ level, value }: TableCell): boolean =>
    value !== null && (level === 'breach' || (only === 'beyond' && level === 'caution'));
  return parts.length > 0 || row.cells.some(isMeant) ? [{ ...row, parts }] : [];
}

/** Rows in order at every depth; missing values stand last either way, equal ones by name, periods by time. */
export function sorted(rows: readonly TableRow[], sort: readonly SortedColumn[]): TableRow[] {
  const byName = (a: TableRow, b: TableRow): number =>
    a.time && b.time ? a.time.start - b.time.start : compareNames(a.name, b.name);
  const compare = (a: TableRow, b: TableRow): number => {
    for (const { column, descending } of sort) {
      const way = descending ? -1 : 1;
      if (column < 0) {
        const order = way * byName(a, b);
        if (order !== 0) return order;
        continue;
      }
      const [x, y] = [a.cells[column]?.value ?? null, b.cells[column]?.value ?? null];
      if (x === y) continue;
      if (x === null || y === null) return x === null ? 1 : -1;
      return way * (x - y);
    }
    return byName(a, b);
  };
  return [...rows].sort(compare).map((row) => ({ ...row, parts: sorted(row.parts, sort) }));
}

/** What is shown of a column. A computed one gets the decimals of its own numbers. */
function headOf(
  { key, name, unit, decimals, band, kind }: Column,
  at: number,
  cells: readonly (readonly TableCell[])[],
): TableHead {
  const head = { key, name, unit, decimals, band, kind };
  if (kind !== 'computed') return head;
  const values = cells.map((row) => row[at].value ?? NaN);
  return { ...head, decimals: decimalsFor(...scaleEnds(null, values)) };
}
