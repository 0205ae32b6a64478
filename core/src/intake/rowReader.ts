import { localTimeReader } from '../time/localTime';
import { isBlankCell, parseNumber } from './numberText';
import { isTotalRow, nameOfRow, type FileLayout } from './layout';
import { timeText } from './recognise';
import { instantOf, parseTimeCell } from './timeFormat';

/** A row, or a cell of one, that was not taken. */
export interface Refusal {
  /** Line in the file, from 1. */
  readonly line: number;
  readonly column: string;
  readonly value: string;
  readonly reason: string;
}

/** A metric that a column or a name feeds. */
export interface FileTarget {
  readonly metricId: string;
  /** Samples before this time are not taken any more, ms; null = all are. */
  readonly earliest: number | null;
}

/** Where the numbers go: by column, or by the name that stands in each row. */
export type FileTargets =
  | {
      readonly by: 'column';
      readonly columns: readonly (FileTarget & { readonly index: number; readonly heading: string })[];
    }
  | { readonly by: 'name'; readonly names: Readonly<Record<string, FileTarget>> };

/** Counts that no single row tells. */
export interface ReadCounts {
  blankCells: number;
  /** Times in the repeated hour of a clock change. */
  repeatedHour: number;
  /** Rows that hold a total or a mean, passed over. */
  totalRows: number;
  /** Rows of names that were left out on purpose. */
  leftOut: number;
}

/** No sample is older than this: 1 January 1900. */
export const EARLIEST_TIME = Date.UTC(1900, 0, 1);

export interface RowReader {
  readonly counts: ReadCounts;
  /**
   * Reads a row. What it holds goes to `take`, what is wrong with it to `refuse`.
   *
   * @returns whether anything was taken.
   */
  readonly read: (
    cells: readonly string[],
    line: number,
    take: (metricId: string, t: number, v: number) => void,
    refuse: (refusal: Refusal) => void,
  ) => boolean;
}

/**
 * Makes a reader of the rows of one file.
 *
 * @param latest times after it are refused, ms (the caller's now plus what it tolerates).
 */
export function rowReader(layout: FileLayout, targets: FileTargets, zone: string, latest: number): RowReader {
  const local = localTimeReader(zone);
  const counts: ReadCounts = { blankCells: 0, repeatedHour: 0, totalRows: 0, leftOut: 0 };
  const before = new Map<string, number>();

  /** The instant of a row in a block; what follows in the file decides which of two it is. */
  const timeOf = (written: string, key: string): { t: number } | { reason: string } => {
    const when = instantOf(parseTimeCell(written, layout.timeFormat), local);
    if ('reason' in when) return when;
    let t = when.t;
    if (when.second !== undefined) {
      counts.repeatedHour++;
      const last = before.get(key);
      const later =
        layout.repeatedHour === 'inOrder' && last !== undefined && t <= last && when.second > last;
      if (layout.repeatedHour === 'second' || later) t = when.second;
    }
    if (t > latest) return { reason: 'lies in the future' };
    if (t < EARLIEST_TIME) return { reason: 'lies before 1900' };
    before.set(key, t);
    return { t };
  };

  const numberIn = (
    cell: string,
    line: number,
    column: string,
    refuse: (refusal: Refusal) => void,
  ): number | null => {
    if (isBlankCell(cell)) {
      counts.blankCells++;
      return null;
    }
    const value = parseNumber(cell, layout.decimal);
    if (Number.isFinite(value)) return value;
    refuse({ line, column, value: clip(cell), reason: 'not a number' });
    return null;
  };

  const byBlock = layout.blocks.map(({ valueColumns }) =>
    targets.by === 'column' ? targets.columns.filter(({ index }) => valueColumns.includes(index)) : [],
  );

  const readColumns = (...[cells, line, take, refuse]: Parameters<RowReader['read']>): boolean => {
    let taken = false;
    for (const [k, block] of layout.blocks.entries()) {
      const inBlock = byBlock[k];
      if (inBlock.length === 0) continue;
      const written = timeText(cells, block);
      // A block that is shorter than the one beside it ends in blank cells.
      const blank = written.trim() === '' && inBlock.every(({ index }) => isBlankCell(cells[index] ?? ''));
      if (blank) continue;
      const when = timeOf(written, `block ${k}`);
      if ('reason' in when) {
        refuse({ line, column: 'time', value: clip(written), reason: when.reason });
        continue;
      }
      for (const { index, heading, metricId, earliest } of inBlock) {
        const value = numberIn(cells[index] ?? '', line, heading, refuse);
        if (value === null) continue;
        if (earliest !== null && when.t < earliest) {
          refuse({
            line,
            column: heading,
            value: clip(written),
            reason: 'older than this metric keeps samples',
          });
          continue;
        }
        take(metricId, when.t, value);
        taken = true;
      }
    }
    return taken;
  };

  const readNamed = (
    names: Readonly<Record<string, FileTarget>>,
    ...[cells, line, take, refuse]: Parameters<RowReader['read']>
  ): boolean => {
    const name = nameOfRow(cells, layout.nameColumns);
    const target = Object.hasOwn(names, name) ? names[name] : undefined;
    const block = layout.blocks[0];
    const column = block.valueColumns[0];
    if (!target) {
      counts.leftOut++;
      return false;
    }
    const written = timeText(cells, block);
    const when = timeOf(written, name);
    if ('reason' in when) {
      refuse({ line, column: 'time', value: clip(written), reason: when.reason });
      return false;
    }
    const value = numberIn(cells[column] ?? '', line, name, refuse);
    if (value === null) return false;
    if (target.earliest !== null && when.t < target.earliest) {
      refuse({ line, column: name, value: clip(written), reason: 'older than this metric keeps samples' });
      return false;
    }
    take(target.metricId, when.t, value);
    return true;
  };

  return {
    counts,
    read(cells, line, take, refuse) {
      if (isTotalRow(cells)) {
        counts.totalRows++;
        return false;
      }
      return targets.by === 'column'
        ? readColumns(cells, line, take, refuse)
        : readNamed(targets.names, cells, line, take, refuse);
    },
  };
}

function clip(text: string): string {
  return text.length > 80 ? `${text.slice(0, 79)}…` : text;
}
