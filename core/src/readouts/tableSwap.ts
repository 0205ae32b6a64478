import type { TableData, TableRow } from './tableData';
import type { TableCell, TableHead } from './tableColumns';

/** Most groups that become columns. */
export const MOST_ACROSS = 60;

/**
 * A table with a column for each of its outermost groups and a row for each of what were its columns; everything together is
 * the last column. Unchanged unless its readout asks for it.
 */
export function asAcross(data: TableData): TableData {
  if (data.readout.across === 'measures') return data;
  const groups = data.rows.slice(0, MOST_ACROSS);
  const together = data.readout.groupBy
    ? [{ key: '', name: 'Together', cells: data.total, assetId: null }]
    : [];
  const columns: readonly Pick<TableRow, 'key' | 'name' | 'cells'>[] = [...groups, ...together];
  return {
    ...data,
    heads: columns.map(({ key, name }): TableHead => ({
      key,
      name,
      unit: '',
      decimals: 0,
      band: null,
      kind: 'group',
    })),
    rows: data.heads.map((head, at): TableRow => ({
      key: head.key,
      name: [head.name, head.unit].filter(Boolean).join(', '),
      assetId: null,
      depth: 0,
      path: [],
      cells: columns.map(({ cells }): TableCell => cells[at]),
      parts: [],
      time: null,
      head: { ...head, at },
    })),
    total: [],
  };
}
