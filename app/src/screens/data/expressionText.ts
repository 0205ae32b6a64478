/** The word that is being typed at the end of an expression. */
export function wordAt(expression: string): string {
  return /[A-Za-z_][A-Za-z0-9_]*$/.exec(expression)?.[0] ?? '';
}

/** Puts a name at the end of an expression, in place of the word being typed where it begins like it. */
export function insertAt(expression: string, name: string): string {
  const word = wordAt(expression);
  const kept = word !== '' && name.startsWith(word) ? expression.slice(0, -word.length) : expression;
  return kept === '' || /[\s(,]$/.test(kept) ? `${kept}${name}` : `${kept} ${name}`;
}

/** A name for an expression made from a label: "Gas used" → gas_used, with a number where it is taken. */
export function nameFor(label: string, taken: readonly string[]): string {
  const plain = label
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '')
    .replace(/^(\d)/, '_$1');
  const base = plain || 'x';
  for (let n = 1; ; n++) {
    const name = n === 1 ? base : `${base}_${n}`;
    if (!taken.includes(name)) return name;
  }
}
