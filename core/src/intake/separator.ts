import Papa from 'papaparse';
import { SEPARATORS, type Separator } from './layout';

const LOOK_AT_ROWS = 200;

/** The first rows of a text, cut at a separator; empty rows left out. */
export function readRows(text: string, separator: Separator, most = Infinity): string[][] {
  const { data } = Papa.parse<string[]>(text, {
    delimiter: separator,
    preview: Number.isFinite(most) ? most : 0,
    skipEmptyLines: 'greedy',
  });
  return data;
}

/** The separator that splits the rows into the most columns, the same number in each row. */
export function guessSeparator(text: string): Separator {
  let best: Separator = ',';
  let bestScore = 0;
  for (const separator of SEPARATORS) {
    const rows = readRows(text, separator, LOOK_AT_ROWS);
    const widths = new Map<number, number>();
    for (const row of rows) widths.set(row.length, (widths.get(row.length) ?? 0) + 1);
    for (const [width, count] of widths) {
      if (width < 2) continue;
      // A decimal comma splits as evenly as a separator; pieces of only digits give it away.
      const pieces = rows.filter((row) => row.length === width).slice(0, 20);
      const split = pieces.flat().filter((cell) => /^\d{4}-\d\d-\d\d|:\d\d|[A-Za-z]/.test(cell)).length;
      const score = (count / rows.length) * 100 + Math.min(width, 50) / 100 + (split > 0 ? 5 : 0);
      if (score > bestScore) {
        best = separator;
        bestScore = score;
      }
    }
  }
  return best;
}
