/** One sheet as rows of text, empty ones left out. */
export interface SheetRows {
  readonly name: string;
  readonly rows: readonly (readonly string[])[];
  /** Number of each row, from 1. */
  readonly lines: readonly number[];
}
