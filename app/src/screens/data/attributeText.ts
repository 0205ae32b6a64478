import { readTyped } from '../../components/readTyped';

/** A number where the text is one in digits, otherwise the text. */
export function attributeValue(text: string): string | number {
  return /^[+-]?[\d.,]*\d$/.test(text) ? (readTyped(text) ?? text) : text;
}

/** Attributes as a person types them: "name: value" a line. */
export function formatAttributes(attributes: Readonly<Record<string, string | number>>): string {
  return Object.entries(attributes)
    .map(([name, value]) => `${name}: ${value}`)
    .join('\n');
}

/** Reads what {@link formatAttributes} wrote; numbers become numbers. A text instead says what is wrong. */
export function parseAttributes(text: string): Record<string, string | number> | string {
  const out: Record<string, string | number> = {};
  for (const [i, line] of text.split('\n').entries()) {
    if (line.trim() === '') continue;
    const at = line.indexOf(':');
    const name = line.slice(0, at).trim();
    const value = line.slice(at + 1).trim();
    if (at < 1 || name === '' || value === '') return `Line ${i + 1} must be a name, a colon and a value`;
    out[name] = attributeValue(value);
  }
  return out;
}
