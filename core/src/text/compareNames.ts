const COLLATOR = new Intl.Collator('en', { numeric: true });

/**
 * Compares names as people sort them: numbers in them by size, whatever the letter case.
 * @example ['Dryer 10', 'Dryer 9'].sort(compareNames) // => ['Dryer 9', 'Dryer 10']
 */
export const compareNames = (a: string, b: string): number => COLLATOR.compare(a, b);
