import { localTimeReader } from '../time/localTime';
import { isBlankCell, parseNumber } from './numberText';
import type { FileLayout } from './recognise';
import { instantOf, parseTimeCell } from './timeFormat';

/** A row, or a cell of one, that was not taken. */
export interface Refusal {
  /** Line in the file, from 1. */
  readonly line: number;
  readonly column: string;
  readonly value: string;
  readonly reason: string;
}

/** Where the numbers of a column go. */
export interface ColumnTarget {
  readonly index: number;
  readonly heading: string;
}

/** What one row gave: its time and a number for each target (NaN where the cell was blank). */
export interface ReadRow {
  readonly t: number;
  readonly values: readonly number[];
}

/** Counts that no single row tells. */
export interface ReadCounts {
  blankCells: number;
  /** Times in the repeated hour of a clock change; the first of the two was taken. */
  repeatedHour: number;
}

/** No sample is older than this: 1 January 1900. */
export const EARLIEST_TIME = Date.UTC(1900, 0, 1);

/**
 * Makes a reader of the rows of one file.
 *
 * @param latest times after it are refused, ms (the caller's now plus what it tolerates).
 */
export function rowReader(
  layout: FileLayout,
  targets: readonly ColumnTarget[],
  zone: string,
  latest: number,
): {
  readonly counts: ReadCounts;
  /** Reads a row; what is wrong with it goes to `refuse`. Null when the whole row is refused. */
  readonly read: (
    cells: readonly string[],
    line: number,
    refuse: (refusal: Refusal) => void,
  ) => ReadRow | null;
} {
  const local = localTimeReader(zone);
  const counts: ReadCounts = { blankCells: 0, repeatedHour: 0 };
  return {
    counts,
    read(cells, line, refuse) {
      const written = cells[layout.timeColumn] ?? '';
      const when = instantOf(parseTimeCell(written, layout.timeFormat), local);
      const refuseTime = (reason: string): null => {
        refuse({ line, column: 'time', value: clip(written), reason });
        return null;
      };
      if ('reason' in when) return refuseTime(when.reason);
      if (when.t > latest) return refuseTime('lies in the future');
      if (when.t < EARLIEST_TIME) return refuseTime('lies before 1900');
      if (when.note === 'twice') counts.repeatedHour++;
      let taken = 0;
      const values = targets.map(({ index, heading }) => {
        const cell = cells[index] ?? '';
        if (isBlankCell(cell)) {
          counts.blankCells++;
          return NaN;
        }
        const value = parseNumber(cell, layout.decimal);
        if (!Number.isFinite(value)) {
          refuse({ line, column: heading, value: clip(cell), reason: 'not a number' });
          return NaN;
        }
        taken++;
        return value;
      });
      return taken === 0 ? null : { t: when.t, values };
    },
  };
}

function clip(text: string): string {
  return text.length > 80 ? `${text.slice(0, 79)}…` : text;
}
