import { BeaconError } from '../errors';

const MAX_KEYS = 10_000;
const DEEPEST = 5;
const MAX_LIST_LENGTH = 100;

/**
 * Turns JSON objects into rows of a table: keys are headings, values inside other objects are named with a dot
 * ("flow.mean"), those of lists by their place ("values.0"). Keys that first come late get a column then.
 */
export interface JsonTable {
  /** Grows while rows are read. */
  readonly headings: readonly string[];
  /** The cells of one object, in the order of the headings. @throws {SyntaxError} for anything but an object. */
  readonly cellsOf: (value: unknown) => string[];
}

/** @throws {BeaconError} BAD_INPUT, from `cellsOf`, for more than 10,000 different keys. */
export function jsonTable(): JsonTable {
  const headings: string[] = [];
  const place = new Map<string, number>();
  const placeOf = (key: string): number => {
    const known = place.get(key);
    if (known !== undefined) return known;
    if (headings.length >= MAX_KEYS) {
      throw new BeaconError('BAD_INPUT', `More than ${MAX_KEYS} different keys in one file.`);
    }
    place.set(key, headings.length);
    headings.push(key);
    return headings.length - 1;
  };
  return {
    headings,
    cellsOf(value) {
      if (typeof value !== 'object' || value === null || Array.isArray(value)) {
        throw new SyntaxError('not a JSON object');
      }
      const cells: string[] = [];
      putAll(value, '', 0, (key, cell) => (cells[placeOf(key)] = cell));
      for (let i = 0; i < headings.length; i++) cells[i] ??= '';
      return cells;
    },
  };
}

function putAll(
  value: object,
  before: string,
  depth: number,
  put: (key: string, cell: string) => void,
): void {
  const entries = Array.isArray(value) ? value.slice(0, MAX_LIST_LENGTH).entries() : Object.entries(value);
  for (const [key, each] of entries as Iterable<[string | number, unknown]>) {
    const name = before === '' ? String(key) : `${before}.${key}`;
    if (each === null || each === undefined) put(name, '');
    else if (typeof each !== 'object') put(name, String(each));
    else if (depth < DEEPEST) putAll(each, name, depth + 1, put);
    else put(name, JSON.stringify(each));
  }
}

/** The table found in a JSON document. */
export type JsonRows =
  | { readonly kind: 'objects'; readonly rows: readonly unknown[] }
  | {
      readonly kind: 'cells';
      readonly headings: readonly string[] | null;
      readonly rows: readonly string[][];
    };

/**
 * Finds the table in a JSON document: a list of objects, a list of lists (the first may hold headings), or an
 * object of lists of equal length, at the top or some levels inside ("data", "features", "series" …); the
 * longest one is used.
 *
 * @throws {BeaconError} BAD_INPUT when there is none.
 */
export function jsonRows(document: unknown): JsonRows {
  const found = candidates(document, 0);
  const best = found.sort((a, b) => b.rows.length - a.rows.length || rank(b) - rank(a))[0];
  if (best) return best;
  throw new BeaconError(
    'BAD_INPUT',
    'This JSON holds no table: no list of objects such as [{"time": "2026-11-19T06:40:00Z", "flow": 1}] and no lists of equal length.',
  );
}

/** Only short lists are searched: a longer one is the table itself. */
const SHORT_LIST = 3;
const MAX_TABLE_DEPTH = 6;

/** Of equally long tables, one with headings is preferred. */
function rank(rows: JsonRows): number {
  return rows.kind === 'cells' && rows.headings !== null ? 1 : 0;
}

function candidates(value: unknown, depth: number): JsonRows[] {
  if (typeof value !== 'object' || value === null || depth > MAX_TABLE_DEPTH) return [];
  if (Array.isArray(value)) {
    const inside = value.length <= SHORT_LIST ? value.flatMap((each) => candidates(each, depth + 1)) : [];
    return [...inside, ...listRows(value)];
  }
  const entries = Object.entries(value);
  const columns = entries.filter(([, each]) => Array.isArray(each) && each.every(isScalar));
  const longest = columns.reduce((most, [, each]) => Math.max(most, (each as unknown[]).length), 0);
  const equal = columns.filter(([, each]) => (each as unknown[]).length === longest);
  const here: JsonRows[] =
    equal.length >= 2
      ? [
          {
            kind: 'cells',
            headings: equal.map(([key]) => key),
            rows: Array.from({ length: longest }, (_, i) =>
              equal.map(([, each]) => textOf((each as unknown[])[i])),
            ),
          },
        ]
      : [];
  return [...here, ...headedLists(entries), ...entries.flatMap(([, each]) => candidates(each, depth + 1))];
}

/** A list of lists beside a list of as many names: { columns: ["time", "flow"], values: [[…], […]] }. */
function headedLists(entries: readonly (readonly [string, unknown])[]): JsonRows[] {
  return entries.flatMap(([, each]): JsonRows[] => {
    const [found] = Array.isArray(each) ? listRows(each) : [];
    if (found?.kind !== 'cells') return [];
    const width = found.rows[0]?.length ?? 0;
    const names = entries.find(
      ([, other]) =>
        Array.isArray(other) && other.length === width && other.every((name) => typeof name === 'string'),
    );
    return names ? [{ ...found, headings: names[1] as string[] }] : [];
  });
}

function listRows(list: readonly unknown[]): JsonRows[] {
  if (list.length === 0) return [];
  const objects = list.filter((each) => typeof each === 'object' && each !== null && !Array.isArray(each));
  if (objects.length >= list.length * 0.5) return [{ kind: 'objects', rows: list }];
  if (list.every((each) => Array.isArray(each) && each.every(isScalar))) {
    return [{ kind: 'cells', headings: null, rows: list.map((each) => (each as unknown[]).map(textOf)) }];
  }
  return [];
}

function isScalar(value: unknown): boolean {
  return typeof value !== 'object' || value === null;
}

function textOf(value: unknown): string {
  return value === null || value === undefined ? '' : String(value);
}
