/** A number as a person types it, with a point or a comma. null = empty or not a number. */
export function readTyped(text: string): number | null {
  const number = Number(text.trim().replace(',', '.').replace('\u2212', '-'));
  return text.trim() === '' || !Number.isFinite(number) ? null : number;
}
