import { BeaconError } from '../errors';

const MOST_KEYS = 10_000;

/**
 * Turns lines of JSON objects into a table: the keys of the first objects are the headings; values in one
 * object in another are named with a dot ("flow.mean").
 */
export interface NdjsonTable {
  readonly headings: readonly string[];
  /** The cells of one line, in the order of the headings. @throws {SyntaxError} for a line that is no object. */
  readonly cellsOf: (line: string) => string[];
}

/**
 * @param lines the first lines of the file, empty ones left out.
 * @throws {BeaconError} BAD_INPUT when none of them is a JSON object.
 */
export function ndjsonTable(lines: readonly string[]): NdjsonTable {
  const headings: string[] = [];
  const place = new Map<string, number>();
  for (const line of lines) {
    for (const key of keysOf(line)) {
      if (place.has(key)) continue;
      if (headings.length >= MOST_KEYS)
        throw new BeaconError('BAD_INPUT', `More than ${MOST_KEYS} keys in one file.`);
      place.set(key, headings.length);
      headings.push(key);
    }
  }
  if (headings.length === 0) {
    throw new BeaconError(
      'BAD_INPUT',
      'No line holds a JSON object such as {"t": "2026-11-19T06:40:00Z", "v": 1}.',
    );
  }
  return {
    headings,
    cellsOf(line) {
      const cells = new Array<string>(headings.length).fill('');
      for (const [key, value] of flat(parseObject(line))) {
        const at = place.get(key);
        if (at !== undefined) cells[at] = value;
      }
      return cells;
    },
  };
}

function keysOf(line: string): string[] {
  try {
    return flat(parseObject(line)).map(([key]) => key);
  } catch {
    return [];
  }
}

function parseObject(line: string): object {
  const value: unknown = JSON.parse(line);
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    throw new SyntaxError('not a JSON object');
  }
  return value;
}

const DEEPEST = 4;

function flat(value: object, before = '', depth = 0): [string, string][] {
  return Object.entries(value).flatMap(([key, each]): [string, string][] => {
    const name = before === '' ? key : `${before}.${key}`;
    if (each === null || each === undefined) return [[name, '']];
    if (typeof each === 'object') {
      return depth < DEEPEST && !Array.isArray(each) ? flat(each as object, name, depth + 1) : [];
    }
    return [[name, String(each)]];
  });
}
