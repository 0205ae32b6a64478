import type { TargetBand } from '../bands/targetBand';
import { parseExpression, namesIn, type FunctionName, type Node } from '../derive/parseExpression';
import type { GroupsData } from './groupsData';
import type { Beside as BesideKind, TableChoices } from './tableChoices';

/** A column of a table; of a table with groups across also a row. */
export interface TableHead {
  readonly key: string;
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  readonly band: TargetBand | null;
  readonly kind: 'measure' | 'computed' | 'period' | 'group' | BesideKind;
}

/** A column with what its cells come from. */
export interface Column extends TableHead {
  /** Index of the measure it is of or beside; -1 of a computed one. */
  readonly measure: number;
  readonly node: Node | null;
  /** Index of its period; -1 = it is of the window. */
  readonly period: number;
}

const LETTERS = 'abcdefghijklmnopqrst';

/** How a measure is called in expressions. */
export const letterOf = (measure: number): string => LETTERS[measure];

/** The measure that an expression calls so; -1 = none. */
export const measureOfLetter = (name: string): number => LETTERS.indexOf(name);

const BESIDE_NAMES: Readonly<Record<Exclude<BesideKind, 'recent'>, (name: string) => string>> = {
  share: (name) => `${name}, share`,
  rank: (name) => `${name}, rank`,
  change: (name) => `${name}, change`,
  distance: (name) => `${name}, from target`,
  trend: (name) => `${name}, over time`,
};

const recentName = (name: string, days: number): string =>
  `${name}, last ${days === 1 ? '24 h' : `${days} days`}`;

/**
 * The columns in order: each measure with what stands beside it, then what is worked out of them, then the periods. So those
 * a table is sorted by stay the same as time goes on.
 *
 * @param periods names of the periods that are columns.
 */
export function columnsOf(
  { columns, readout }: GroupsData<TableChoices>,
  periods: readonly string[],
): { readonly columns: readonly Column[]; readonly wrong: ReadonlyMap<number, string> } {
  const wrong = new Map<number, string>();
  const own = columns.flatMap((column, measure): Column[] => {
    const base = { ...column, measure, node: null, period: -1 };
    const name = column.name || 'Value';
    const beside = readout.beside.filter((each) => each.measure === measure);
    return [
      { ...base, key: `measure ${measure}`, name, kind: 'measure' },
      ...beside.map(({ show }): Column => ({
        ...base,
        key: `${show} ${measure}`,
        name: show === 'recent' ? recentName(name, readout.recentDays) : BESIDE_NAMES[show](name),
        kind: show,
        band: show === 'recent' ? bandOfStretch(column) : null,
        ...(show === 'share' && { unit: '%', decimals: 1 }),
        ...(show === 'rank' && { unit: '', decimals: 0 }),
      })),
    ];
  });
  const computed = readout.computed.flatMap(({ name, expression, unit }, i): Column[] => {
    const read = readExpression(expression, columns.length);
    if ('why' in read) {
      wrong.set(i, read.why);
      return [];
    }
    return [
      {
        key: `computed ${i}`,
        name,
        unit,
        decimals: 2,
        band: null,
        kind: 'computed',
        measure: -1,
        node: read.node,
        period: -1,
      },
    ];
  });
  const byPeriod = columns.flatMap((column, measure) =>
    periods.map((period, i): Column => ({
      ...column,
      key: `period ${measure} ${i}`,
      name: columns.length > 1 ? `${column.name}, ${period}` : period,
      kind: 'period',
      band: bandOfStretch(column),
      measure,
      node: null,
      period: i,
    })),
  );
  return { columns: [...own, ...computed, ...byPeriod], wrong };
}

/** Of another stretch than the window: limits of an amount are those of the window's length, so they judge no other. */
export const bandOfStretch = ({
  band,
  addsUp,
}: Pick<GroupsData['columns'][number], 'band' | 'addsUp'>): TargetBand | null => (addsUp ? null : band);

function readExpression(
  expression: string,
  measures: number,
): { readonly node: Node } | { readonly why: string } {
  const known = new Set(Array.from({ length: measures }, (_, measure) => letterOf(measure)));
  try {
    const node = parseExpression(expression);
    const neighbours = callsIn(node).find((each) => OF_NEIGHBOURS.has(each));
    if (neighbours !== undefined)
      return { why: `${neighbours} compares with what is before, and rows do not follow one another.` };
    const unknown = namesIn(node).find((each) => !known.has(each));
    if (unknown !== undefined) return { why: `${unknown} is no column: they are ${[...known].join(', ')}.` };
    return { node };
  } catch (error) {
    return { why: (error as Error).message };
  }
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
