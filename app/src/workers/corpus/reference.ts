import { readFileSync } from 'node:fs';
import { parse } from 'csv-parse/sync';
import type { TrueColumns } from './realFiles';

/** Values by time (ms) of each series, keyed by its names and value column. */
export type TrueSeries = ReadonlyMap<string, ReadonlyMap<number, number>>;

/**
 * Reads a real file by another author's reader (csv-parse, JSON.parse) and the columns a careful person chose:
 * what the product must take.
 */
export function trueSeries(path: string, columns: TrueColumns): TrueSeries {
  const { time, names = [], values, when = isoDate } = columns;
  const series = new Map<string, Map<number, number>>();
  for (const row of rowsOf(path)) {
    for (const column of values) {
      const cell = row[column];
      if (cell === undefined || cell === null || String(cell).trim() === '') continue;
      const key = [...names.map((name) => row[name]), column].join(' / ');
      const own = series.get(key) ?? new Map<number, number>();
      series.set(key, own);
      own.set(when(String(row[time])), Number(cell));
    }
  }
  return series;
}

function rowsOf(path: string): Record<string, unknown>[] {
  const text = readFileSync(path, 'utf8');
  if (path.endsWith('.json')) return JSON.parse(text) as Record<string, unknown>[];
  return parse(text, { columns: true, delimiter: path.endsWith('.tsv') ? '\t' : ',', bom: true });
}

function isoDate(cell: string): number {
  return Date.parse(/T.*(Z|[+-]\d\d:\d\d)$/.test(cell) || !cell.includes('T') ? cell : `${cell}Z`);
}
