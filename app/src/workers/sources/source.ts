import type { ColumnPart, Separator } from '@vivid-beacon/core/src/intakeFiles';

/** Rows of a file with the line each began on. */
export interface RowBatch {
  readonly rows: readonly (readonly string[])[];
  readonly lines: readonly number[];
  /** Empty lines among them, and lines that lie inside a quoted cell. */
  readonly blank: number;
  readonly continued: number;
  /** How far through the file this is, 0 to 1. */
  readonly share: number;
}

/** A row that could not even be split into cells. */
export type RefuseLine = (line: number, text: string, reason: string) => void;

/** An opened file: a table, whatever its format. */
export interface Source {
  /** Its format, as shown on the screen: "UTF-8", "XLSX", "JSON". */
  readonly encoding: string;
  /** What its line numbers count. */
  readonly counted: 'line' | 'row' | 'item';
  /** Names of the sheets, for a spreadsheet; the first one with data is read unless another is asked for. */
  readonly sheets: readonly string[];
  readonly sheet: string | null;
  /** The separator is a choice for text tables only. */
  readonly separator: Separator | null;
  /** The first rows, to recognise the layout by. */
  readonly head: readonly (readonly string[])[];
  /** `head` holds all rows. */
  readonly whole: boolean;
  /**
   * Headings of a format that names its columns, growing while rows are read; null if rows must be searched
   * for them.
   */
  readonly headings: readonly string[] | null;
  /** What the format itself says of its columns. */
  readonly parts: Readonly<Record<number, ColumnPart>>;
  readonly rows: (refuse: RefuseLine) => AsyncGenerator<RowBatch>;
}

/** The part of a file that sources need; the browser's File and Node's Blob both have it. */
export interface FileLike {
  readonly name: string;
  readonly size: number;
  readonly slice: (from: number, to: number) => { arrayBuffer: () => Promise<ArrayBuffer> };
}

/** A table whose rows are all in memory. */
export function rowsAtHand(
  rows: readonly (readonly string[])[],
  lines: readonly number[],
  blank = 0,
): Pick<Source, 'head' | 'whole' | 'rows'> {
  const ROWS_AT_ONCE = 2000;
  const HEAD = 5000;
  return {
    head: rows.slice(0, HEAD),
    whole: rows.length <= HEAD,
    async *rows() {
      for (let i = 0; i < rows.length; i += ROWS_AT_ONCE) {
        const to = Math.min(rows.length, i + ROWS_AT_ONCE);
        yield {
          rows: rows.slice(i, to),
          lines: lines.slice(i, to),
          blank: i === 0 ? blank : 0,
          continued: 0,
          share: to / rows.length,
        };
      }
    },
  };
}
