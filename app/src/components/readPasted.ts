import { DateTime } from 'luxon';
import { readTyped } from './readTyped';

/** Rows of "2026-01-01 <tab> 4200"; a text instead says which row is wrong. */
export function readPasted(text: string): readonly { start: string; value: number }[] | string {
  const rows: { start: string; value: number }[] = [];
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const [date, ...rest] = line.trim().split(/[\t;]|\s{2,}|\s(?=[\d+-][^-]*$)/);
    const start = DateTime.fromISO(date.length === 7 ? `${date}-01` : date);
    const number = rest.join('');
    const value = readTyped(number) ?? NaN;
    if (!start.isValid) return `Row ${i + 1}: "${date}" is not a date such as 2026-01-01.`;
    if (Number.isNaN(value)) return `Row ${i + 1}: "${rest.join(' ')}" is not a number.`;
    rows.push({ start: start.toISODate(), value });
  }
  return rows;
}
