import { FAIR_SHARE, isDuration, isShort, numbersOf, usualSign } from './columnFacts';
import { carryDown, findNames } from './findNames';
import { isClock, isPartOfDate, isWrittenTime, type FoundTimes, type TimesAcross } from './findTimes';
import type { Heading } from './headings';
import { HEADING, wordsOf } from './headingWords';
import type { ColumnPart, FoundColumn } from './layout';
import type { DecimalSign } from './numberText';
import type { ColumnSurvey } from './survey';

type Rows = readonly (readonly string[])[];

/** The part of each column, with details of some. */
export interface Parts {
  readonly parts: ColumnPart[];
  readonly carriedDown: readonly number[];
  readonly partsOfDate: readonly number[];
  readonly doubt: string | null;
}

/**
 * Gives every column its part: times as found, numbers as values, words as names where they tell rows apart.
 *
 * @param body rows of data to look for names in. @param across times that stand in headings; null = columns date the rows.
 */
export function columnPartsOf(
  columns: readonly ColumnSurvey[],
  headings: readonly string[],
  times: FoundTimes,
  decimal: DecimalSign,
  body: Rows,
  across: TimesAcross | null,
): Parts {
  const parts: ColumnPart[] = columns.map(() => 'leftOut');
  for (const [i, part] of times.parts) parts[i] = part;
  const dated = [...times.parts.values()].some((part) => part === 'time');
  const partsOfDate: number[] = [];
  const texts: number[] = [];
  columns.forEach((column, i) => {
    if (times.parts.has(i) || times.others.includes(i) || column.filled === 0) return;
    const numbers = numbersOf(column, decimal);
    if (numbers > 0 && numbers >= column.filled * FAIR_SHARE) {
      if (dated && isPartOfDate(column, headings[i])) partsOfDate.push(i);
      else parts[i] = 'value';
    } else texts.push(i);
  });
  const unit = texts.find((i) => HEADING.unit.test(wordsOf(headings[i])) && isShort(columns[i]));
  if (unit !== undefined) parts[unit] = 'unit';
  if (across) {
    columns.forEach((_, i) => {
      if (parts[i] === 'value' && !across.columns.has(i)) parts[i] = 'leftOut';
    });
    // Each row is a series of its own: all words tell it apart.
    for (const i of texts) if (i !== unit && !HEADING.remark.test(wordsOf(headings[i]))) parts[i] = 'name';
    return { parts, carriedDown: [], partsOfDate, doubt: null };
  }
  const values = indexesOf(parts, 'value');
  const codes = values.filter((i) => {
    const { integers, filled, distinct } = columns[i];
    return integers === filled && distinct !== null && distinct.size <= Math.max(50, filled / 10);
  });
  const timeColumns = [...times.parts.keys()];
  // A date written once for the rows of a day, or once for a group of names.
  const carriedTimes = timeColumns.filter(
    (i) =>
      times.parts.get(i) === 'time' &&
      columns[i].blank >= (columns[i].blank + columns[i].filled) * 0.3 &&
      (body[0]?.[i] ?? '').trim() !== '' &&
      timeColumns.length + texts.length > 1,
  );
  const found = findNames({
    rows: carryDown(body, carriedTimes),
    headings,
    timeColumns,
    valueColumns: values,
    textColumns: texts.filter((i) => i !== unit),
    codeColumns: codes.length < values.length ? codes : codes.slice(0, -1),
  });
  for (const i of found.nameColumns) parts[i] = 'name';
  if (found.nameColumns.length === 0 && unit !== undefined) parts[unit] = 'leftOut';
  return { parts, carriedDown: [...found.carriedDown, ...carriedTimes], partsOfDate, doubt: found.doubt };
}

export function indexesOf(parts: readonly ColumnPart[], part: ColumnPart): number[] {
  return parts.flatMap((each, i) => (each === part ? [i] : []));
}

/** One column as a person is shown it. */
export function foundColumn(
  column: ColumnSurvey,
  index: number,
  { heading, unit }: Heading,
  { parts, carriedDown, partsOfDate }: Parts,
  times: FoundTimes,
  decimal: DecimalSign,
  across: TimesAcross | null,
): FoundColumn {
  const part = parts[index];
  const numbers = isWrittenTime(column) ? 0 : numbersOf(column, decimal);
  const sign = usualSign(column);
  return {
    index,
    heading,
    unit: part === 'value' ? (sign ?? (isDuration(column) ? 's' : unit)) : unit,
    part,
    note: noteOf(),
    numbers,
    words: column.filled - numbers,
    blank: column.blank,
    errors: column.errors,
    example: column.example,
  };

  function noteOf(): string {
    if (carriedDown.includes(index)) return 'blank cells repeat the one above';
    if (part === 'value' && across?.columns.has(index)) return 'its heading is the time of its values';
    if (part === 'value' && isDuration(column)) return 'lengths of time, in seconds';
    if (part !== 'leftOut') return '';
    if (column.filled === 0) return column.errors > 0 ? 'only error cells' : 'blank so far';
    if (times.others.includes(index)) return 'read as time, does not date the rows';
    if (partsOfDate.includes(index)) return 'part of the date';
    if (isClock(column)) return 'time of day';
    if (numbers === 0) return 'not numbers';
    return numbers < column.filled * FAIR_SHARE
      ? `mostly not numbers: ${numbers} of ${column.filled} are`
      : '';
  }
}
