/** A timestamptz column as a number of ms since the Unix epoch. Both names are ours, never input. */
export function ms(column: string, name: string): string {
  return `(extract(epoch from ${column}) * 1000)::float8 as "${name}"`;
}

/** ms since the Unix epoch as a parameter for a timestamptz. */
export function moment(t: number): Date {
  return new Date(t);
}
