import type { FileLayout } from './layout';

/** A heading without its unit, to know it again. */
function plainHeading(text: string): string {
  return text
    .replace(/\s*[([][^()[\]]{1,20}[)\]]\s*$/, '')
    .trim()
    .toLowerCase();
}

/** Makes a test for rows that only repeat the headings, as where several exports were joined to one file. */
export function headingAgain({ headings, width }: FileLayout): (cells: readonly string[]) => boolean {
  const keys = headings.map(plainHeading);
  return (cells) => {
    let same = 0;
    for (let i = 0; i < cells.length; i++) {
      const cell = cells[i];
      if (cell === '') continue;
      // Hardly a heading begins with a digit, and nearly every row of data has such a cell.
      if (same === 0 && cell.charCodeAt(0) >= 48 && cell.charCodeAt(0) <= 57) return false;
      const plain = plainHeading(cell);
      if (plain === '') continue;
      if (plain !== keys[i]) return false;
      same++;
    }
    return same > 1 || (same === 1 && width === 1);
  };
}
