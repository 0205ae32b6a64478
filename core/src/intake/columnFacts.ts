import { isWrittenTime, type FoundTimes } from './findTimes';
import type { DecimalSign } from './numberText';
import type { ColumnSurvey } from './survey';

/** A column with fewer numbers than this is one of words. */
export const FAIR_SHARE = 0.5;

/** The decimal sign of a file: the one that more of its cells need. */
export function decimalOf(columns: readonly ColumnSurvey[], times: FoundTimes): DecimalSign {
  let commas = 0;
  columns.forEach((column, i) => {
    if (times.parts.has(i) || isWrittenTime(column)) return;
    commas += column.onlyComma - column.onlyDot;
  });
  return commas > 0 ? ',' : '.';
}

/** Whether a column holds durations. */
export function isDuration(column: ColumnSurvey): boolean {
  return column.durations > 0 && column.durations >= column.filled * FAIR_SHARE;
}

/** Cells of a column that are read as values. */
export function numbersOf(column: ColumnSurvey, decimal: DecimalSign): number {
  if (isDuration(column)) return column.durations;
  return decimal === '.' ? column.dot : column.comma;
}

/** Few and short words, as units are. */
export function isShort({ distinct }: ColumnSurvey): boolean {
  return distinct !== null && distinct.size <= 50 && [...distinct].every((each) => each.length <= 16);
}

/** The sign or unit that stands beside most numbers of a column. */
export function usualSign(column: ColumnSurvey): string | null {
  const most = [...column.signs].sort((a, b) => b[1] - a[1])[0];
  return most && most[1] >= column.filled / 2 ? most[0] : null;
}
