/** Dashes by which lines are told apart besides their tone; the first line is drawn through. */
const PATTERNS = [undefined, '7 3', '2 3', '11 3 2 3', '4 2', '11 3 2 3 2 3'] as const;

/** Lengths of dashes and gaps of the nth line of a trend, px; undefined = drawn through. */
export const linePattern = (n: number): string | undefined => PATTERNS[n % PATTERNS.length];
