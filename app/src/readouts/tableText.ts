import { formatNumber } from '@vivid-beacon/core';
import type { Table } from '@vivid-beacon/core/src/boards';

const MOST_DECIMALS = 6;

/** A table as tab-separated lines for pasting into a sheet, with the unit in the head; what is unknown is empty. */
export function tableText({ columns, rows }: Table): string {
  const plain = (text: string): string => text.replace(/[\t\r\n]+/g, ' ');
  const cell = (value: string | number | null): string => {
    if (value === null) return '';
    if (typeof value === 'string') return plain(value);
    const short = Number(value.toFixed(MOST_DECIMALS));
    // Without separators of thousands, in the person's own decimal sign, so that a sheet reads it as a number.
    const decimal = formatNumber(1.5, 1)[1];
    return String(short).replace('.', decimal);
  };
  return [
    columns.map(({ name, unit }) => plain(unit === '' ? name : `${name} (${unit})`)),
    ...rows.map((row) => row.map(cell)),
  ]
    .map((line) => line.join('\t'))
    .join('\n');
}
