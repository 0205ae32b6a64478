/** Which part of a long list is wanted. */
export interface PageRange {
  readonly offset: number;
  readonly limit: number;
}

/** A pattern for `ilike`: the word anywhere. Signs that mean something in a pattern stand for themselves. */
export function containing(word: string): string {
  return `%${word.replace(/[\\%_]/g, '\\$&')}%`;
}
