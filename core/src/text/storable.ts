const HALVES = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;
const HALVES_AND_NULLS = new RegExp(`${HALVES.source}|\\0`, 'g');

/**
 * Whether a text can be stored. PostgreSQL's text holds neither U+0000 nor half a surrogate pair (manual, 8.3
 * and 8.14).
 */
export function isStorable(text: string): boolean {
  return !text.includes('\0') && !HALVES.test(text);
}

/** The text with U+FFFD in the place of what cannot be stored, cut to `most` characters. */
export function storableText(text: string, most = Infinity): string {
  const cut = text.length > most ? `${text.slice(0, most - 1)}…` : text;
  return cut.replace(HALVES_AND_NULLS, '\uFFFD');
}
