import { LEVEL_WORDS } from '../bands/targetBand';
import type { MeasureColumn } from './groupsData';
import type { ReadoutValue } from './readoutValues';
import { isLit } from './stateWords';
import type { Table, TableColumn } from './table';

type Cell = string | number | null;

interface GroupLine {
  readonly lead: readonly Cell[];
  /** One per measure; null = unknown. */
  readonly values: readonly (ReadoutValue | null)[];
  readonly tail: readonly Cell[];
}

/** Several measures of each group as rows: of each its value, its level if it has a band, and its coverage. */
export function groupsTable(
  columns: readonly MeasureColumn[],
  lines: readonly GroupLine[],
  around: { readonly lead: readonly TableColumn[]; readonly tail: readonly TableColumn[] },
): Table {
  return {
    columns: [
      ...around.lead,
      ...columns.flatMap(({ name, unit, band }) => {
        const own = name || 'Value';
        return [
          { name: own, unit },
          ...(band ? [{ name: `${own}, level`, unit: '' }] : []),
          { name: `${own}, coverage`, unit: '%' },
        ];
      }),
      ...around.tail,
    ],
    rows: lines.map(({ lead, values, tail }) => [
      ...lead,
      ...columns.flatMap(({ band }, i): Cell[] => {
        const value = values[i];
        return [
          value?.value ?? null,
          ...(band ? [value && isLit(value, band) ? LEVEL_WORDS[value.level] : null] : []),
          value ? value.coverage * 100 : null,
        ];
      }),
      ...tail,
    ]),
  };
}
