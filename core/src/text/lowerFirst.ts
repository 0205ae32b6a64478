/**
 * "Bed temperature" → "bed temperature", but "CO2" stays.
 * @example lowerFirst('Gas used') // => 'gas used'
 */
export function lowerFirst(text: string): string {
  return /^[A-Z][a-z]/.test(text) ? text[0].toLowerCase() + text.slice(1) : text;
}
