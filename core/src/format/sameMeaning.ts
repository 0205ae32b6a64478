/**
 * Whether two documents are equal regardless of the order of their members. (PostgreSQL's jsonb reorders
 * them.)
 */
export function sameMeaning(a: unknown, b: unknown): boolean {
  return canonical(a) === canonical(b);
}

function canonical(value: unknown): string {
  return JSON.stringify(value, (_, each: unknown) =>
    typeof each === 'object' && each !== null && !Array.isArray(each)
      ? Object.fromEntries(Object.entries(each).sort(([x], [y]) => (x < y ? -1 : 1)))
      : each,
  );
}
