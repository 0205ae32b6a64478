import { DateTime } from 'luxon';
import Papa from 'papaparse';
import type { Table, TableColumn } from '@vivid-beacon/core/src/boards';

/**
 * Rows as CSV (RFC 4180, UTF-8): a head with units, numbers unrounded with a decimal point, moments in ISO 8601 with the
 * offset of the zone. What a spreadsheet would take for a formula is marked as text.
 *
 * @example tableToCsv({ columns: [{ name: 'Value', unit: 'kWh' }], rows: [[1.5]] }, 'UTC') // => "Value (kWh)\r\n1.5\r\n", after a byte order mark
 */
export function tableToCsv({ columns, rows }: Table, zone: string): string {
  const head = columns.map(headWords);
  const cells = rows.map((row) =>
    row.map((value, i) =>
      columns[i].isTime && typeof value === 'number' ? DateTime.fromMillis(value, { zone }).toISO() : value,
    ),
  );
  // The byte order mark tells spreadsheets that the text is UTF-8.
  return `\uFEFF${Papa.unparse([head, ...cells], { escapeFormulae: true, newline: '\r\n' })}\r\n`;
}

/** A column by its name and unit: "Value (kWh)". */
export const headWords = ({ name, unit }: TableColumn): string => (unit === '' ? name : `${name} (${unit})`);
