import { COUNT_COLUMN, type FileLayout } from './layout';

/** A series of a file: a value column, restricted to the rows of one name if the file names its series. */
export interface Feed {
  /** Unique in the file; the same for the next file of its shape. */
  readonly key: string;
  /** Number of the series, from 0, in the order they come in the file. */
  readonly index: number;
  readonly column: number;
  /** Words of the name columns joined; '' in a file without such. */
  readonly name: string;
  /** The words of the name columns, in the order of the columns. */
  readonly words: readonly string[];
  /** How the series is called: name and heading, as far as they tell it apart. */
  readonly label: string;
  /** From the unit column of its first row. */
  readonly unit: string | null;
  /** Unit of its numbers: of the column, of the unit column, or beside the first number that has one. */
  sign: string | null;
  samples: number;
  /** Line of the first value. */
  readonly line: number;
  /** The first value as it stands in the file. */
  readonly example: string;
}

/** Separates name and column in the key of a feed. */
const KEY_SEPARATOR = '\u001f';

export function feedKey(name: string, column: number): string {
  return name === '' ? String(column) : `${name}${KEY_SEPARATOR}${column}`;
}

/** A metric that a series feeds. */
export interface FileTarget {
  readonly metricId: string;
  /** Samples before this time are refused, ms; null = none are. */
  readonly earliest: number | null;
  /** How much earlier than they are written samples are stored, ms: amounts are kept by the start of their interval. */
  readonly shiftMs: number;
}

/** The target of each series, by key of the feed. A series without a target is left out. */
export type FileTargets = Readonly<Record<string, FileTarget>>;

/** No file has more series. */
export const MAX_FEEDS = 10_000;

/** The column that stands for all columns dated by their headings: they hold one series between them. */
export function columnOfTimesAcross({ blocks }: FileLayout): number | null {
  return blocks.some(({ written }) => written !== undefined) ? blocks[0].valueColumns[0] : null;
}

/** The series of a file, as they come. */
export interface FeedRegistry {
  readonly feeds: readonly Feed[];
  /** The series of a name and value column; a new one is described by the row it first came in. */
  readonly feedOf: (
    name: string,
    column: number,
    cells: readonly string[],
    line: number,
    example: string,
  ) => Feed;
}

export function feedRegistry(layout: FileLayout): FeedRegistry {
  const { nameColumns, unitColumn } = layout;
  const across = columnOfTimesAcross(layout) !== null;
  const severalValues =
    nameColumns.length === 0 ||
    (!across && layout.blocks.reduce((n, { valueColumns }) => n + valueColumns.length, 0) > 1);
  const feeds: Feed[] = [];
  /** By name, then by column (one higher: rows are counted in column -1). */
  const byName = new Map<string, Feed[]>();
  const headingOf = (column: number): string => {
    if (across) return 'values';
    return column === COUNT_COLUMN ? 'rows' : (layout.headings[column] ?? `Column ${column + 1}`);
  };
  return {
    feeds,
    feedOf(name, column, cells, line, example) {
      let ofName = byName.get(name);
      if (!ofName) {
        ofName = [];
        byName.set(name, ofName);
      }
      const known = ofName[column + 1];
      if (known) return known;
      const heading = headingOf(column);
      const feed: Feed = {
        key: feedKey(name, column),
        index: feeds.length,
        column,
        name,
        words: nameColumns.map((i) => (cells[i] ?? '').trim()),
        label: name === '' ? heading : severalValues ? `${name} / ${heading}` : name,
        unit: unitColumn === null ? null : (cells[unitColumn] ?? '').trim() || null,
        sign: layout.units[column] ?? null,
        samples: 0,
        line,
        example,
      };
      ofName[column + 1] = feed;
      feeds.push(feed);
      return feed;
    },
  };
}
