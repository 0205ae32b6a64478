/**
 * How periods that come again are laid out as a grid: the hours of a week or of a day (every Monday 06:00 together), the
 * hours of each date, the days of each month.
 */
export const FOLDS = ['hourOfWeek', 'hourOfDay', 'hourOfDate', 'dayOfMonth'] as const;
export type Fold = (typeof FOLDS)[number];

/** The period that a fold puts into its cells. */
export const PERIOD_OF_FOLD = {
  hourOfWeek: 'hour',
  hourOfDay: 'hour',
  hourOfDate: 'hour',
  dayOfMonth: 'day',
} as const satisfies Readonly<Record<Fold, 'hour' | 'day'>>;

/** Columns of a folded grid: hours of a day or days of a month. */
export const COLUMNS_OF_FOLD: Readonly<Record<Fold, number>> = {
  hourOfWeek: 24,
  hourOfDay: 24,
  hourOfDate: 24,
  dayOfMonth: 31,
};
