import type { DecimalSign } from './numberText';
import type { TimeFormat } from './timeFormat';

export const SEPARATORS = [',', ';', '\t', '|'] as const;
export type Separator = (typeof SEPARATORS)[number];

export const SEPARATOR_WORDS: Readonly<Record<Separator, string>> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'upright bar',
};

/** Columns that stand side by side with a time column of their own. */
export interface Block {
  readonly timeColumn: number;
  /** A second column with the time of day, where the first holds only the date. */
  readonly clockColumn: number | null;
  readonly valueColumns: readonly number[];
}

/** How times in the repeated hour of a clock change are taken. */
export const REPEATED_HOURS = ['inOrder', 'first', 'second'] as const;
export type RepeatedHour = (typeof REPEATED_HOURS)[number];

export const REPEATED_HOUR_WORDS: Readonly<Record<RepeatedHour, string>> = {
  inOrder: 'as they follow in the file',
  first: 'the first of the two',
  second: 'the second of the two',
};

/** How a file is read. Recognised from its first rows, then corrected by a person where it is wrong. */
export interface FileLayout {
  /** null for sheets and JSON, whose cells are parted already. */
  readonly separator: Separator | null;
  readonly decimal: DecimalSign;
  /** Rows above the headings: titles, notes, names of devices. Empty rows do not count. */
  readonly preambleRows: number;
  /** Rows that name the columns, 0 to 3. */
  readonly headingRows: number;
  /** One column per metric, or one row per sample. */
  readonly shape: 'columns' | 'samples';
  readonly blocks: readonly Block[];
  /** One row per sample: the columns that name the metric, and the one with its unit. */
  readonly nameColumns: readonly number[];
  readonly unitColumn: number | null;
  readonly timeFormat: TimeFormat;
  readonly repeatedHour: RepeatedHour;
}

/** What a person can set; the rest is recognised around it. */
export type LayoutCorrection = Partial<
  Pick<
    FileLayout,
    | 'separator'
    | 'decimal'
    | 'preambleRows'
    | 'headingRows'
    | 'shape'
    | 'timeFormat'
    | 'repeatedHour'
    | 'nameColumns'
  >
> & { readonly timeColumn?: number };

/** One column as it was found. */
export interface FoundColumn {
  readonly index: number;
  /** Headings of all heading rows, joined. */
  readonly heading: string;
  /** Unit written in the heading in round or square brackets, "Flow (m³/h)", or in a row of units. */
  readonly unit: string | null;
  readonly numeric: boolean;
}

/** What was recognised, for a person to check. */
export interface Recognised {
  readonly layout: FileLayout;
  readonly columns: readonly FoundColumn[];
  /** More than one when the file cannot tell day-first from month-first. */
  readonly timeFormats: readonly TimeFormat[];
  /** Usual time between rows of one metric, ms; null for a single row. */
  readonly stepMs: number | null;
  /** The first rows as they stand in the file, preamble and headings included. */
  readonly rows: readonly (readonly string[])[];
  /** One row per sample: the names found so far, with the unit beside them. */
  readonly names: readonly { readonly name: string; readonly unit: string | null }[];
}

/** What a row of one row per sample is called: its name columns joined. */
export function nameOfRow(cells: readonly string[], nameColumns: readonly number[]): string {
  return nameColumns
    .map((column) => (cells[column] ?? '').trim())
    .filter((each) => each !== '')
    .join(' / ');
}

const TOTAL =
  /^\s*(grand\s+)?(total|sum|subtotal|summe|gesamt|gesamtsumme|totale|somme|mean|average|avg|mittelwert|minimum|maximum|min|max)\b\.?:?/i;

/** Does a row hold a total or a mean of the rows above it? */
export function isTotalRow(cells: readonly string[]): boolean {
  const first = cells.find((cell) => cell.trim() !== '');
  return first !== undefined && TOTAL.test(first);
}
