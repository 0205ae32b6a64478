import type { Separator } from '@vivid-beacon/core/src/intakeFiles';

/** Rows of a file with the line each began on; empty rows are left out. */
export interface RowBatch {
  readonly rows: readonly (readonly string[])[];
  readonly lines: readonly number[];
  /** How far through the file this is, 0 to 1. */
  readonly share: number;
}

/** A row that could not even be split into cells. */
export type RefuseLine = (line: number, text: string, reason: string) => void;

/** A file that has been opened: a table, whatever it was written as. */
export interface Source {
  readonly encoding: string;
  /** Names of the sheets, for a spreadsheet; the first one with data is read unless another is asked for. */
  readonly sheets: readonly string[];
  readonly sheet: string | null;
  /** The separator is a choice for text tables only. */
  readonly separator: Separator | null;
  /** The first rows, to recognise the layout by. */
  readonly head: readonly (readonly string[])[];
  readonly rows: (refuse: RefuseLine) => AsyncGenerator<RowBatch>;
}

/** What of a file the sources need; the browser's File and Node's Blob both have it. */
export interface FileLike {
  readonly name: string;
  readonly size: number;
  readonly slice: (from: number, to: number) => { arrayBuffer: () => Promise<ArrayBuffer> };
}
