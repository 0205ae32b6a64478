import type { Level, TargetBand } from '../bands/targetBand';
import { parseExpression, namesIn, type FunctionName, type Node } from '../derive/parseExpression';
import type { GroupsData } from './groupsData';
import type { ReadoutValue } from './readoutValues';
import type { Beside as BesideKind, TableChoices, TableNote } from './tableChoices';

/** A column of a table; of a table with groups across also a row. */
export interface TableHead {
  readonly key: string;
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  readonly band: TargetBand | null;
  readonly kind: 'measure' | 'computed' | 'period' | 'group' | BesideKind | TableNote;
}

/** Whether it is what the logs say. */
export const isNote = (kind: TableHead['kind']): kind is TableNote => kind === 'stops' || kind === 'remarks';

export interface TableCell {
  readonly value: number | null;
  readonly level: Level;
  readonly coverage: number;
  /** The value it is or comes from; null of what is computed of several. */
  readonly of: ReadoutValue | null;
  /** Its values by period, for a small trend; only in such a column. */
  readonly course?: readonly (number | null)[];
  /** What the logs say; only in such a column. */
  readonly text?: string;
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

const BESIDE_NAMES: Readonly<Record<BesideKind, (name: string, days: number) => string>> = {
  share: (name) => `${name}, share`,
  rank: (name) => `${name}, rank`,
  change: (name) => `${name}, change`,
  distance: (name) => `${name}, from target`,
  daily: (name) => `${name}, average of a day`,
  recent: (name, days) => `${name}, ${lastWords(days)}`,
  recentDaily: (name, days) => `${name}, average of a day, ${lastWords(days)}`,
  trend: (name) => `${name}, over time`,
};

const lastWords = (days: number): string => `last ${days === 1 ? '24 h' : `${days} days`}`;

const NOTE_NAMES: Readonly<Record<TableNote, string>> = { stops: 'Stopped', remarks: 'Remarks' };

/**
 * The columns in order: each measure with what stands beside it, then what is worked out of them, then what the logs say, then the periods. So those
 * a table is sorted by stay the same as time goes on.
 *
 * @param periods names of the periods that are columns.
 */
export function columnsOfTable(
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
        name: BESIDE_NAMES[show](name, readout.recentDays),
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
  const notes = readout.notes.map((kind): Column => ({
    key: kind,
    name: NOTE_NAMES[kind],
    unit: kind === 'stops' ? 'h' : '',
    decimals: kind === 'stops' ? 1 : 0,
    band: null,
    kind,
    measure: -1,
    node: null,
    period: -1,
  }));
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
  return { columns: [...own, ...computed, ...notes, ...byPeriod], wrong };
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
