import { DateTime } from 'luxon';
import type { Table } from '@vivid-beacon/core/src/boards';
import { headWords } from './tableToCsv';

/**
 * Rows as NDJSON: an object a line, its members named as the columns with their units, numbers unrounded, moments in ISO 8601
 * with the offset of the zone, null where a value is missing. Columns of the same name are numbered.
 *
 * @example tableToNdjson({ columns: [{ name: 'Value', unit: 'kWh' }], rows: [[1.5]] }, 'UTC') // => '{"Value (kWh)":1.5}\n'
 */
export function tableToNdjson({ columns, rows }: Table, zone: string): string {
  const names = numbered(columns.map(headWords));
  return rows
    .map((row) => {
      const members = row.map((value, i) => [
        names[i],
        columns[i].isTime && typeof value === 'number' ? DateTime.fromMillis(value, { zone }).toISO() : value,
      ]);
      return `${JSON.stringify(Object.fromEntries(members))}\n`;
    })
    .join('');
}

/** Each name once: "Value", "Value 2". */
function numbered(names: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return names.map((name) => {
    const count = (seen.get(name) ?? 0) + 1;
    seen.set(name, count);
    return count === 1 ? name : `${name} ${count}`;
  });
}
