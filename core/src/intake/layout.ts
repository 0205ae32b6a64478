import type { Stamped } from '../domain/metric';
import type { DecimalSign } from './numberText';
import type { Century, TimeFormat } from './timeFormat';

export const SEPARATORS = [',', ';', '\t', '|'] as const;
export type Separator = (typeof SEPARATORS)[number];

export const SEPARATOR_WORDS: Readonly<Record<Separator, string>> = {
  ',': 'comma',
  ';': 'semicolon',
  '\t': 'tab',
  '|': 'vertical bar',
};

/** What a column is for. */
export const COLUMN_PARTS = [
  'time',
  'clock',
  'year',
  'month',
  'day',
  'hour',
  'minute',
  'name',
  'unit',
  'value',
  'leftOut',
] as const;
export type ColumnPart = (typeof COLUMN_PARTS)[number];

export const COLUMN_PART_WORDS: Readonly<Record<ColumnPart, string>> = {
  time: 'Time',
  clock: 'Time of day',
  year: 'Year',
  month: 'Month',
  day: 'Day',
  hour: 'Hour',
  minute: 'Minute',
  name: 'Name',
  unit: 'Unit',
  value: 'Value',
  leftOut: 'Left out',
};

/** Parts that together make the time of a row. */
export const TIME_PARTS = ['time', 'clock', 'year', 'month', 'day', 'hour', 'minute'] as const;
export type TimePart = (typeof TIME_PARTS)[number];

export function isTimePart(part: ColumnPart): part is TimePart {
  return (TIME_PARTS as readonly string[]).includes(part);
}

/** Value columns with the columns that date them. A file has several when such groups stand side by side. */
export interface Block {
  readonly timeColumns: readonly number[];
  /** What each of `timeColumns` gives. */
  readonly timeParts: readonly TimePart[];
  readonly valueColumns: readonly number[];
  /**
   * Time that stands in the heading of the one value column ("Jan 2026"), where times run across a table; absent where
   * columns date the rows.
   */
  readonly written?: string;
}

/** Stands for a value column where rows are counted: every row counts 1. */
export const COUNT_COLUMN = -1;

/** How times in the repeated hour of a clock change are taken. */
export const REPEATED_HOURS = ['inOrder', 'first', 'second'] as const;
export type RepeatedHour = (typeof REPEATED_HOURS)[number];

export const REPEATED_HOUR_WORDS: Readonly<Record<RepeatedHour, string>> = {
  inOrder: 'in the order of the file',
  first: 'the first of the two',
  second: 'the second of the two',
};

/** Which value is kept when different ones collide on one series and time. */
export const COLLISION_RULES = ['last', 'first', 'sum', 'mean'] as const;
export type CollisionRule = (typeof COLLISION_RULES)[number];

export const COLLISION_RULE_WORDS: Readonly<Record<CollisionRule, string>> = {
  last: 'the last in the file',
  first: 'the first in the file',
  sum: 'their sum',
  mean: 'their mean',
};

export const EVENT_PERIODS = ['hour', 'day', 'week', 'month', 'year'] as const;

/** Rows that are events: counted, or their values added up, in periods of the site's calendar. */
export interface Events {
  readonly per: (typeof EVENT_PERIODS)[number];
  readonly of: 'count' | 'sum';
}

/** How a file is read: recognised from all of its rows, then corrected by a person where it is wrong. */
export interface FileLayout {
  /** null for sheets and JSON, whose cells are already separate. */
  readonly separator: Separator | null;
  readonly decimal: DecimalSign;
  /** Rows above the headings: titles, notes, names of devices. Empty rows do not count. */
  readonly preambleRows: number;
  /** Rows that name the columns, 0 to 3. */
  readonly headingRows: number;
  /** Columns of the table. Further cells of a row have no heading and no meaning. */
  readonly width: number;
  /** Headings of the columns, without units. */
  readonly headings: readonly string[];
  /** Units that stand beside the numbers of a column; null = none do. Numbers in another unit are refused. */
  readonly units: readonly (string | null)[];
  readonly blocks: readonly Block[];
  /** The columns that name the series of a row. */
  readonly nameColumns: readonly number[];
  readonly unitColumn: number | null;
  /** Columns in which a blank cell repeats the one above: merged cells, names written once a group. */
  readonly carriedDown: readonly number[];
  /** Value columns that hold lengths of time; they are read in seconds. */
  readonly durations: readonly number[];
  readonly timeFormat: TimeFormat;
  readonly century: Century | null;
  /** The one time of every row, ms, where the file has none. */
  readonly fixedTime: number | null;
  readonly repeatedHour: RepeatedHour;
  /** What the times of amounts stand for; null = as each metric says. */
  readonly stamped: Stamped | null;
  /** null = a person must say if values collide. */
  readonly collisions: CollisionRule | null;
  readonly events: Events | null;
  /** Rows that hold the total of those above are left out, or read like any other. */
  readonly totals: 'leftOut' | 'read';
}

/**
 * How values of one series and time are combined: events add up, otherwise as a person chose; null = not
 * chosen.
 */
export function collisionRule({
  events,
  collisions,
}: Pick<FileLayout, 'events' | 'collisions'>): CollisionRule | null {
  return events ? 'sum' : collisions;
}

/** What a person can set; the rest is recognised accordingly. */
export type LayoutCorrection = Partial<
  Pick<
    FileLayout,
    | 'separator'
    | 'decimal'
    | 'preambleRows'
    | 'headingRows'
    | 'timeFormat'
    | 'century'
    | 'fixedTime'
    | 'repeatedHour'
    | 'stamped'
    | 'collisions'
    | 'events'
    | 'totals'
  >
> & {
  /** By number of the column. */
  readonly parts?: Readonly<Record<number, ColumnPart>>;
  /** How many columns before the first heading have none. */
  readonly headingOffset?: number;
};

/** One column as it was found in all of the file. */
export interface FoundColumn {
  readonly index: number;
  /** Headings of all heading rows, joined. */
  readonly heading: string;
  /** Unit written in the heading, "Flow (m³/h)", in a row of units, or beside the numbers, "12 %". */
  readonly unit: string | null;
  readonly part: ColumnPart;
  /** Why it is left out, or what is special about it; empty for a plain case. */
  readonly note: string;
  readonly numbers: number;
  readonly words: number;
  readonly blank: number;
  readonly errors: number;
  /** The first cell that holds anything. */
  readonly example: string;
}

/** Something only a person can say. Nothing is taken while one is open. */
export interface Question {
  readonly about: 'rows' | 'time' | 'dayOrMonth' | 'century' | 'values' | 'names' | 'headings' | 'collisions';
  readonly words: string;
}

/** What was recognised, for a person to check. */
export interface Recognised {
  readonly layout: FileLayout;
  readonly columns: readonly FoundColumn[];
  readonly questions: readonly Question[];
  /** More than one when the file cannot tell day-first from month-first. */
  readonly timeFormats: readonly TimeFormat[];
  /** Years have two digits. */
  readonly shortYears: boolean;
  /** The first rows as they stand in the file, preamble and headings included. */
  readonly rows: readonly (readonly string[])[];
}

/** What a row is called: the words of its name columns. */
export function nameOfRow(cells: readonly string[], nameColumns: readonly number[]): string {
  return nameColumns
    .map((column) => (cells[column] ?? '').trim())
    .filter((each) => each !== '')
    .join(' / ');
}
