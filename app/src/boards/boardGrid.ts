import type { Readout } from '@vivid-beacon/core';
import { isInCopies, traitsOfForm } from '@vivid-beacon/core/src/boards';

/** Height of one row of a wide sheet, px. */
export const ROW_HEIGHT = 76;
export const WIDE_COLUMNS = 12;
export const PHONE_COLUMNS = 2;

export interface GridCell {
  readonly readout: Readout;
  readonly span: number;
}

/** Columns a readout takes, as set or as usual for what it shows. */
export function columnsOf(readout: Readout, wide: boolean): number {
  const { form, size, groupBy, measures } = readout;
  const many = groupBy !== null || measures.length > 1;
  if (!wide) return traitsOfForm(form).halfOnPhone && !many && (size?.columns ?? 0) <= 6 ? 1 : PHONE_COLUMNS;
  if (isInCopies(readout)) return size?.columns ?? WIDE_COLUMNS;
  return size?.columns ?? traitsOfForm(form).columns[many ? 'many' : 'one'];
}

/**
 * Lays readouts in rows, in their order. What is left of a row goes to its widest readouts of no set size, so
 * that rows fill the sheet.
 */
export function gridRows(readouts: readonly Readout[], wide: boolean): GridCell[][] {
  const columns = wide ? WIDE_COLUMNS : PHONE_COLUMNS;
  const rows: GridCell[][] = [];
  let row: GridCell[] = [];
  let used = 0;
  for (const readout of readouts) {
    const span = columnsOf(readout, wide);
    if (used + span > columns) {
      rows.push(row);
      row = [];
      used = 0;
    }
    row.push({ readout, span });
    used += span;
  }
  if (row.length > 0) rows.push(row);
  return rows.map((cells) => filled(cells, columns, wide));
}

function filled(cells: readonly GridCell[], columns: number, wide: boolean): GridCell[] {
  const used = cells.reduce((sum, { span }) => sum + span, 0);
  const free = cells.filter(({ readout }) => !wide || readout.size === null);
  const widest = Math.max(0, ...free.map(({ span }) => span));
  // A lone small readout stays small; a row with a wide one gives it the rest.
  if (widest * 2 < columns) return [...cells];
  const at = cells.findIndex((cell) => cell.span === widest && free.includes(cell));
  return cells.map((cell, i) => (i === at ? { ...cell, span: cell.span + columns - used } : cell));
}

/** A readout made wider, narrower, taller or shorter by one step; it stays on the sheet. */
export function resized(
  readout: Readout,
  by: { readonly columns?: number; readonly rows?: number },
): Readout {
  const columns = readout.size?.columns ?? columnsOf(readout, true);
  const rows = readout.size?.rows ?? 4;
  const clip = (n: number, low: number): number => Math.min(WIDE_COLUMNS, Math.max(low, n));
  return {
    ...readout,
    size: { columns: clip(columns + (by.columns ?? 0), 2), rows: clip(rows + (by.rows ?? 0), 1) },
  };
}
