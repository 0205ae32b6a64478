import type { Readout, ReadoutForm } from '@vivid-beacon/core';

/** Columns each form takes of 12 on a wide sheet; on the phone of 2. */
const WIDE: Readonly<Record<ReadoutForm, number>> = { gauge: 3, lamp: 3, figure: 3, trend: 6 };
const PHONE: Readonly<Record<ReadoutForm, number>> = { gauge: 1, lamp: 1, figure: 1, trend: 2 };

export interface GridCell {
  readonly readout: Readout;
  readonly span: number;
}

/**
 * Lays readouts in rows, in their order. What is left of a row goes to its widest readouts, so that every
 * row fills the sheet.
 */
export function gridRows(readouts: readonly Readout[], wide: boolean): GridCell[][] {
  const columns = wide ? 12 : 2;
  const width = wide ? WIDE : PHONE;
  const rows: GridCell[][] = [];
  let row: GridCell[] = [];
  let used = 0;
  for (const readout of readouts) {
    const span = width[readout.form];
    if (used + span > columns) {
      rows.push(row);
      row = [];
      used = 0;
    }
    row.push({ readout, span });
    used += span;
  }
  if (row.length > 0) rows.push(row);
  return rows.map((cells) => filled(cells, columns));
}

function filled(cells: readonly GridCell[], columns: number): GridCell[] {
  const used = cells.reduce((sum, { span }) => sum + span, 0);
  const widest = Math.max(...cells.map(({ span }) => span));
  // A lone small readout stays small; a row with a trend gives it the rest.
  if (widest * 2 < columns) return [...cells];
  const at = cells.findIndex(({ span }) => span === widest);
  return cells.map((cell, i) => (i === at ? { ...cell, span: cell.span + columns - used } : cell));
}
