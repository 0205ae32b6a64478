import type { Level, TargetBand } from '../bands/targetBand';
import { scaleEnds } from '../bands/scaleEnds';
import { shortfallOf } from '../bands/shortfall';
import type { BaseReadout } from '../board/choices';
import { evaluate } from '../derive/evaluate';
import { parseExpression, namesIn, type FunctionName, type Node } from '../derive/parseExpression';
import type { GroupBy, Query, QueryAnswer } from '../domain/query';
import { decimalsFor } from '../format/format';
import { ranksOf } from '../stats/ranks';
import { compareNames } from '../text/compareNames';
import { nameKey } from '../text/sameName';
import { groupsData, groupsRequests, valueOfAll, type GroupRow, type GroupsData } from './groupsData';
import type { WithMoreBands } from './moreBands';
import {
  isProblem,
  type Problem,
  type ReadingAnswers,
  type ReadingRequest,
  type ReadoutInputs,
} from './readoutData';
import type { ReadoutValue } from './readoutValues';

/** What can stand beside a measure: each a column of its own. */
export const BESIDE = ['share', 'rank', 'change', 'distance', 'recent'] as const;
export type Beside = (typeof BESIDE)[number];

/** A column worked out of the others, which are called a, b, c … in the order of the measures. */
export interface ComputedColumn {
  readonly name: string;
  readonly expression: string;
  readonly unit: string;
}

/** One column to sort by; -1 = the names. */
export interface SortedColumn {
  readonly column: number;
  readonly descending: boolean;
}

/** The choices of a table besides those of every readout. */
export interface TableChoices extends WithMoreBands {
  /** By measure: what stands beside it. */
  readonly beside: readonly { readonly measure: number; readonly show: Beside }[];
  /** Days up to now that the recent value is of, beside that of the window. */
  readonly recentDays: number;
  readonly computed: readonly ComputedColumn[];
  /** The first counts most; ties go on to the next. */
  readonly sort: readonly SortedColumn[];
  /** Only rows with a value on such a level, and the groups around them. */
  readonly only: 'all' | 'beyond' | 'breach';
  readonly cells: 'bars' | 'numbers';
}

/** A column of a table. */
export interface TableHead {
  readonly key: string;
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  readonly band: TargetBand | null;
  readonly kind: 'measure' | 'computed' | Beside;
}

export interface TableCell {
  readonly value: number | null;
  readonly level: Level;
  readonly coverage: number;
  /** The value it is or comes from; null of what is computed of several. */
  readonly of: ReadoutValue | null;
}

export interface TableRow extends Pick<GroupRow, 'key' | 'name' | 'assetId'> {
  /** 0 = outermost. */
  readonly depth: number;
  /** Names of the groups around it, outermost first. */
  readonly path: readonly string[];
  readonly cells: readonly TableCell[];
  readonly parts: readonly TableRow[];
}

export interface TableData extends GroupsData<TableChoices> {
  readonly heads: readonly TableHead[];
  /** Outermost rows, sorted; each with its parts. */
  readonly rows: readonly TableRow[];
  /** Everything together; a cell without a value where it cannot be put together. */
  readonly total: readonly TableCell[];
  /** Rows that are left out, because none of their values is on the level asked for. */
  readonly hidden: number;
  /** Why a computed column cannot be worked out, by its index. */
  readonly wrong: ReadonlyMap<number, string>;
}

/** The groupings of a table, outermost first. */
const levelsOf = ({ groupBy, steps }: BaseReadout): readonly GroupBy[] =>
  groupBy ? [groupBy, ...steps] : [];

/**
 * A query for each depth, so that every subtotal is that of its kind of measure, and one a measure for the total; the same
 * for the last days where they are shown.
 */
export function tableRequests(inputs: ReadoutInputs<TableChoices>): readonly ReadingRequest[] | null {
  const asks = groupsRequests(inputs);
  const [first] = asks ?? [];
  if (first?.kind !== 'query') return asks;
  const levels = levelsOf(inputs.readout);
  if (levels.length === 0) return asks;
  const deep = levels.map((groupBy, i): ReadingRequest => ({
    kind: 'query',
    ask: { ...first.ask, groupBy, within: levels.slice(0, i) },
  }));
  const whole = first.ask.measures.map((measure): ReadingRequest => {
    const ask: Query = { ...first.ask, measures: [measure], groupBy: { kind: 'all' } };
    return { kind: 'query', ask, isExtra: true };
  });
  const all = [...deep, ...whole];
  return showsRecent(inputs.readout) ? [...all, ...all.map(ofRecent(inputs.readout))] : all;
}

const showsRecent = ({ beside }: TableChoices): boolean => beside.some(({ show }) => show === 'recent');

/** The same over the last days. The table does not wait for it. */
const ofRecent =
  ({ recentDays }: TableChoices) =>
  (request: ReadingRequest): ReadingRequest =>
    request.kind === 'trend'
      ? request
      : {
          kind: 'query',
          ask: {
            ...request.ask,
            window: { kind: 'rolling', count: recentDays, unit: 'day' },
            compare: 'none',
          },
          isExtra: true,
        };

export function tableData(inputs: ReadoutInputs<TableChoices>, answers: ReadingAnswers): TableData | Problem {
  const { readout } = inputs;
  const levels = levelsOf(readout);
  const data = groupsData(inputs, answers);
  if (isProblem(data)) return data;
  const { columns, wrong } = columnsOf(data);
  const { lines, total } = linesOf(inputs, data, answers);
  const recent = recentOf(inputs, data, answers.slice(levels.length + readout.measures.length));
  const cells = cellsOf(lines, columns, data, total, recent);
  const rows = treeOf(lines, cells.lines);
  const kept = readout.only === 'all' ? rows : rows.flatMap((row) => keptOf(row, readout.only));
  const count = (all: readonly TableRow[]): number => all.reduce((n, { parts }) => n + 1 + count(parts), 0);
  return {
    ...data,
    heads: columns.map(({ kind, ...column }) =>
      withDecimals({ ...column, kind }, lines, cells.lines, columns),
    ),
    rows: sorted(kept, readout.sort),
    total: cells.total,
    hidden: count(rows) - count(kept),
    wrong,
  };
}

/** The lines of every depth, and each measure of everything together. */
function linesOf(
  inputs: ReadoutInputs<TableChoices>,
  data: GroupsData<TableChoices>,
  answers: ReadingAnswers,
): { readonly lines: readonly Line[]; readonly total: readonly (ReadoutValue | null)[] } {
  const { readout } = inputs;
  const levels = levelsOf(readout);
  const lines: Line[] = data.groups.map((row) => ({ row, depth: 0, path: [] }));
  levels.slice(1).forEach((groupBy, i) => {
    const answer = answers[i + 1] as QueryAnswer | undefined;
    const found = groupsData({ ...inputs, readout: { ...readout, groupBy } }, [answer]);
    if (isProblem(found) || !answer) return;
    const shown = answer.groups.filter(({ name }) => name !== '' || readout.keepBlanks);
    found.groups.forEach((row, k) => lines.push({ row, depth: i + 1, path: shown[k].path ?? [] }));
  });
  const total = readout.measures.map((_, i) => {
    const answer = readout.groupBy ? (answers[levels.length + i] as QueryAnswer | undefined) : undefined;
    return answer ? valueOfAll(answer, data, i, 'All') : null;
  });
  return { lines, total };
}

/** The values of the last days. */
interface Recent {
  /** Of a line; undefined while they are not there. */
  readonly of: (line: Line) => GroupRow['values'] | undefined;
  readonly total: readonly (ReadoutValue | null)[];
}

function recentOf(
  inputs: ReadoutInputs<TableChoices>,
  data: GroupsData<TableChoices>,
  answers: ReadingAnswers,
): Recent | null {
  const first = answers[0] && showsRecent(inputs.readout) ? groupsData(inputs, answers) : null;
  if (!first || isProblem(first)) return null;
  const { lines, total } = linesOf(inputs, { ...data, groups: first.groups }, answers);
  const known = new Map(lines.map(({ row, path }) => [aroundOf([...path, row.key]), row.values]));
  return { of: ({ row, path }) => known.get(aroundOf([...path, row.key])), total };
}

interface Line {
  readonly row: GroupRow;
  readonly depth: number;
  readonly path: readonly string[];
}

interface Column extends TableHead {
  /** Index of the measure it is of or beside; -1 of a computed one. */
  readonly measure: number;
  readonly node: Node | null;
}

const LETTERS = 'abcdefghijklmnopqrst';

/** How a measure is called in expressions. */
export const letterOf = (measure: number): string => LETTERS[measure];

const BESIDE_NAMES: Readonly<Record<Exclude<Beside, 'recent'>, (name: string) => string>> = {
  share: (name) => `${name}, share`,
  rank: (name) => `${name}, rank`,
  change: (name) => `${name}, change`,
  distance: (name) => `${name}, from target`,
};

const recentName = (name: string, days: number): string =>
  `${name}, last ${days === 1 ? '24 h' : `${days} days`}`;

function columnsOf({ columns, readout }: GroupsData<TableChoices>): {
  readonly columns: readonly Column[];
  readonly wrong: ReadonlyMap<number, string>;
} {
  const wrong = new Map<number, string>();
  const own = columns.flatMap((column, measure): Column[] => {
    const base = { ...column, measure, node: null };
    const name = column.name || 'Value';
    const beside = readout.beside.filter((each) => each.measure === measure);
    return [
      { ...base, key: `measure ${measure}`, name, kind: 'measure' },
      ...beside.map(({ show }): Column => ({
        ...base,
        key: `${show} ${measure}`,
        name: show === 'recent' ? recentName(name, readout.recentDays) : BESIDE_NAMES[show](name),
        kind: show,
        band: show === 'recent' ? column.band : null,
        ...(show === 'share' && { unit: '%', decimals: 1 }),
        ...(show === 'rank' && { unit: '', decimals: 0 }),
      })),
    ];
  });
  const computed = readout.computed.flatMap(({ name, expression, unit }, i): Column[] => {
    const known = new Set(columns.map((_, measure) => letterOf(measure)));
    try {
      const node = parseExpression(expression);
      const unknown = namesIn(node).find((each) => !known.has(each));
      const neighbours = callsIn(node).find((each) => OF_NEIGHBOURS.has(each));
      if (neighbours !== undefined)
        throw new Error(`${neighbours} compares with what is before, and rows do not follow one another.`);
      if (unknown !== undefined)
        throw new Error(`${unknown} is no column: they are ${[...known].join(', ')}.`);
      return [
        { key: `computed ${i}`, name, unit, decimals: 2, band: null, kind: 'computed', measure: -1, node },
      ];
    } catch (error) {
      wrong.set(i, (error as Error).message);
      return [];
    }
  });
  return { columns: [...own, ...computed], wrong };
}

/** Functions over steps of time, which mean nothing from row to row. */
const OF_NEIGHBOURS: ReadonlySet<FunctionName> = new Set([
  'difference',
  'rate',
  'rolling',
  'cumulative',
  'lag',
]);

/** The functions that an expression calls. */
function callsIn(node: Node): FunctionName[] {
  switch (node.kind) {
    case 'negate':
      return callsIn(node.of);
    case 'binary':
      return [...callsIn(node.left), ...callsIn(node.right)];
    case 'call':
      return [node.name, ...node.args.flatMap(callsIn)];
    default:
      return [];
  }
}

const NOTHING: TableCell = { value: null, level: 'nodata', coverage: 0, of: null };

/** The cells of all lines and of the total, column by column. */
function cellsOf(
  lines: readonly Line[],
  columns: readonly Column[],
  { columns: measures }: GroupsData<TableChoices>,
  total: readonly (ReadoutValue | null)[],
  recent: Recent | null,
): { readonly lines: readonly (readonly TableCell[])[]; readonly total: readonly TableCell[] } {
  const all = [...lines.map(({ row }) => row.values as readonly (ReadoutValue | null)[]), total];
  const byColumn = columns.map((column) => {
    if (column.node) return computedCells(column.node, all);
    const ranks = column.kind === 'rank' ? ranksAmong(lines, column.measure) : [];
    return all.map((values, i): TableCell => {
      const value = values[column.measure];
      if (!value) return NOTHING;
      const { band } = measures[column.measure];
      switch (column.kind) {
        case 'measure':
          return judgedCell(value);
        case 'recent': {
          const last = i < lines.length ? recent?.of(lines[i]) : recent?.total;
          // How it was made is that of the window, so it opens nothing.
          const own = last?.[column.measure];
          return own ? { ...judgedCell(own), of: null } : NOTHING;
        }
        case 'share': {
          const whole = total[column.measure]?.value ?? null;
          const share = shareOf(value.value, whole, measures[column.measure].addsUp);
          return plain(share === null ? null : share * 100, value);
        }
        case 'rank':
          return plain(ranks[i] ?? null, value);
        case 'change':
          return plain(
            value.value === null || value.previous === null ? null : value.value - value.previous,
            value,
          );
        default:
          return plain(value.value === null || !band ? null : shortfallOf(band, value.value), value);
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

/** The groups around a line, with how many they are, as one text; names that differ only in capitals are one. */
const aroundOf = (path: readonly string[]): string =>
  [String(path.length), ...path.map(nameKey)].join(BETWEEN);

/** Arithmetic over the measures of each line: of the total over the totals, so that ratios are of sums. */
function computedCells(node: Node, all: readonly (readonly (ReadoutValue | null)[])[]): TableCell[] {
  const size = all.length;
  const of = (name: string): Float64Array => {
    const measure = LETTERS.indexOf(name);
    return Float64Array.from(all, (values) => values[measure]?.value ?? NaN);
  };
  const results = evaluate(node, { size, of, hours: new Float64Array(size).fill(1), amounts: new Set() });
  return Array.from(results, (value, i): TableCell => {
    const known = all[i].filter((each) => each !== null);
    const coverage = Math.min(1, ...known.map((each) => each.coverage));
    return Number.isFinite(value) ? { value, level: 'clear', coverage, of: null } : { ...NOTHING, coverage };
  });
}

const BETWEEN = '\u0000';

/** Lines as a tree: a line lies in the one whose path and name are its path. */
function treeOf(lines: readonly Line[], cells: readonly (readonly TableCell[])[]): TableRow[] {
  const parts = siblingsOf(lines);
  const below = (path: readonly string[]): TableRow[] =>
    (parts.get(aroundOf(path)) ?? []).map((i) => {
      const { row, depth } = lines[i];
      return {
        key: [...path, row.key].join(BETWEEN),
        name: depth === 0 ? row.name : row.name.split(' / ').at(-1)!,
        assetId: row.assetId,
        depth,
        path,
        cells: cells[i],
        parts: below([...path, row.key]),
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

/** Rows in order at every depth; missing values stand last either way, equal ones by name. */
export function sorted(rows: readonly TableRow[], sort: readonly SortedColumn[]): TableRow[] {
  const compare = (a: TableRow, b: TableRow): number => {
    for (const { column, descending } of sort) {
      const way = descending ? -1 : 1;
      if (column < 0) {
        const byName = way * compareNames(a.name, b.name);
        if (byName !== 0) return byName;
        continue;
      }
      const [x, y] = [a.cells[column]?.value ?? null, b.cells[column]?.value ?? null];
      if (x === y) continue;
      if (x === null || y === null) return x === null ? 1 : -1;
      return way * (x - y);
    }
    return compareNames(a.name, b.name);
  };
  return [...rows].sort(compare).map((row) => ({ ...row, parts: sorted(row.parts, sort) }));
}

/** A computed column gets the decimals of its own numbers. */
function withDecimals(
  { kind, ...column }: TableHead,
  lines: readonly Line[],
  cells: readonly (readonly TableCell[])[],
  columns: readonly Column[],
): TableHead {
  const at = columns.findIndex(({ key }) => key === column.key);
  if (kind !== 'computed') return { ...column, kind };
  const values = lines.map((_, i) => cells[i][at].value ?? NaN);
  return { ...column, kind, decimals: decimalsFor(...scaleEnds(null, values)) };
}
