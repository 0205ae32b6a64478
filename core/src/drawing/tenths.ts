/** Longest place that is kept as text, px. */
const MOST = 4096;

const known: string[] = [];

/**
 * A place in px to a tenth, as text. A trend writes thousands of them for every drawing, and most are asked for
 * again: writing a number costs several times what finding it does.
 * @example tenths(1.2345) // => '1.2'
 */
export function tenths(px: number): string {
  const n = Math.round(px * 10);
  if (n >= 0 && n < MOST * 10) return (known[n] ??= String(n / 10));
  return String(n / 10);
}
