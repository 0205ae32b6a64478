import * as yup from 'yup';
import { MAX_MEASURES } from '../domain/measure';
import { asked } from './ask';
import { moreBandsField, type WithMoreBands } from './moreBands';

/** What can stand beside a measure: each a column of its own. */
export const BESIDE = [
  'share',
  'rank',
  'change',
  'distance',
  'daily',
  'recent',
  'recentDaily',
  'trend',
] as const;
export type Beside = (typeof BESIDE)[number];

/** Periods by which a table can show values. */
export const TABLE_PERIODS = ['hour', 'shift', 'day', 'week', 'month', 'quarter', 'year'] as const;

/** What the logs can say of each row. */
export const TABLE_NOTES = ['stops', 'remarks'] as const;
export type TableNote = (typeof TABLE_NOTES)[number];

/** A column worked out of the others, which are called a, b, c … in the order of the measures. */
export interface ComputedColumn {
  readonly name: string;
  readonly expression: string;
  readonly unit: string;
}

/** Ends of the widths that can be set by hand, px. */
export const LEAST_WIDTH = 36;
export const MOST_WIDTH = 900;
/** The column of the names. */
export const NAMES_COLUMN = 'names';

/** A width set by hand. */
export interface ColumnWidth {
  /** Key of the column; `NAMES_COLUMN` = the names. */
  readonly column: string;
  /** px. */
  readonly width: number;
}

/** The widths with one of them changed; null = as it fits. */
export function withWidth(
  widths: readonly ColumnWidth[],
  column: string,
  width: number | null,
): readonly ColumnWidth[] {
  const others = widths.filter((each) => each.column !== column);
  if (width === null) return others;
  return [...others, { column, width: Math.round(Math.min(MOST_WIDTH, Math.max(LEAST_WIDTH, width))) }];
}

/** One column to sort by; -1 = the names. */
export interface SortedColumn {
  readonly column: number;
  readonly descending: boolean;
}

/** The choices of a table besides those of every readout. */
export interface TableChoices extends WithMoreBands {
  /** By measure: what stands beside it. */
  readonly beside: readonly { readonly measure: number; readonly show: Beside }[];
  /** Days up to now that the recent value is of, beside that of the window. */
  readonly recentDays: number;
  readonly computed: readonly ComputedColumn[];
  /** The first counts most; ties go on to the next. */
  readonly sort: readonly SortedColumn[];
  /** Only rows with a value on such a level, and the groups around them. */
  readonly only: 'all' | 'beyond' | 'breach';
  readonly cells: 'bars' | 'parts' | 'numbers';
  /** How the heads of the columns stand. */
  readonly heads: 'level' | 'turned';
  /** Widths set by hand. */
  readonly widths: readonly ColumnWidth[];
  /** The periods whose values stand with those of the window. */
  readonly periods: 'none' | (typeof TABLE_PERIODS)[number];
  /** Whether each period is a column, or a row inside each of the innermost rows. */
  readonly periodsAs: 'columns' | 'rows';
  /** What the logs say of each row, in columns. */
  readonly notes: readonly TableNote[];
  /** What the columns are. */
  readonly across: 'measures' | 'groups';
}

const measureIndex = () =>
  yup
    .number()
    .integer()
    .min(0)
    .max(MAX_MEASURES - 1)
    .required();

export const TABLE_FIELDS = {
  periods: asked(
    yup
      .string()
      .oneOf(['none', ...TABLE_PERIODS] as const)
      .default('none'),
    {
      label: 'Values',
      words: {
        none: 'of the whole window',
        hour: 'also by hour',
        shift: 'also by shift',
        day: 'also by day',
        week: 'also by week',
        month: 'also by month',
        quarter: 'also by quarter',
        year: 'also by year',
      },
    },
  ),
  periodsAs: asked(
    yup
      .string()
      .oneOf(['columns', 'rows'] as const)
      .default('columns'),
    {
      label: 'Each period is',
      words: { columns: 'a column', rows: 'a row' },
      unless: { periods: 'none' },
    },
  ),
  across: asked(
    yup
      .string()
      .oneOf(['measures', 'groups'] as const)
      .default('measures'),
    { label: 'Columns', words: { measures: 'measures', groups: 'groups' } },
  ),
  cells: asked(
    yup
      .string()
      .oneOf(['bars', 'parts', 'numbers'] as const)
      .default('bars'),
    {
      label: 'Cells',
      words: {
        bars: 'numbers with bars',
        parts: 'numbers with bars, those of groups divided by their parts',
        numbers: 'numbers alone',
      },
    },
  ),
  heads: asked(
    yup
      .string()
      .oneOf(['level', 'turned'] as const)
      .default('level'),
    { label: 'Heads', words: { level: 'level', turned: 'turned, for narrow columns' } },
  ),
  widths: yup
    .array(
      yup
        .object({
          column: yup.string().min(1).max(400).required(),
          width: yup.number().integer().min(LEAST_WIDTH).max(MOST_WIDTH).required(),
        })
        .noUnknown()
        .required(),
    )
    .max(100)
    .default([]),
  only: asked(
    yup
      .string()
      .oneOf(['all', 'beyond', 'breach'] as const)
      .default('all'),
    {
      label: 'Rows',
      words: { all: 'all', beyond: 'only those in Caution or Breach', breach: 'only those in Breach' },
    },
  ),
  beside: yup
    .array(
      yup
        .object({ measure: measureIndex(), show: yup.string().oneOf(BESIDE).required() })
        .noUnknown()
        .required(),
    )
    .max(40)
    .default([]),
  notes: yup.array(yup.string().oneOf(TABLE_NOTES).required()).max(TABLE_NOTES.length).default([]),
  recentDays: yup.number().integer().min(1).max(366).default(7),
  computed: yup
    .array(
      yup
        .object({
          name: yup.string().trim().min(1).max(80).required(),
          expression: yup.string().trim().min(1).max(400).required(),
          unit: yup.string().max(40).defined(),
        })
        .noUnknown()
        .required(),
    )
    .max(10)
    .default([]),
  sort: yup
    .array(
      yup
        .object({
          column: yup.number().integer().min(-1).max(2000).required(),
          descending: yup.boolean().required(),
        })
        .noUnknown()
        .required(),
    )
    .max(5)
    .default([]),
  moreBands: moreBandsField,
};

export const TABLE_DEFAULTS: TableChoices = {
  periods: 'none',
  periodsAs: 'columns',
  across: 'measures',
  cells: 'bars',
  heads: 'level',
  widths: [],
  only: 'all',
  beside: [],
  notes: [],
  recentDays: 7,
  computed: [],
  sort: [],
  moreBands: [],
};
