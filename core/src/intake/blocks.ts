import { indexesOf } from './columnParts';
import type { TimesAcross } from './findTimes';
import { COUNT_COLUMN, isTimePart, type Block, type ColumnPart, type TimePart } from './layout';

/** A group for each column whose heading is the time of its values. */
export function blocksAcross(parts: readonly ColumnPart[], { columns }: TimesAcross): Block[] {
  return [...columns]
    .filter(([column]) => parts[column] === 'value')
    .map(([column, written]) => ({ timeColumns: [], timeParts: [], valueColumns: [column], written }));
}

/** Groups value columns under the times that date them: one group, or one for each column of part "time". */
export function blocksOf(parts: readonly ColumnPart[], counted: boolean): Block[] {
  const timed = parts.flatMap((part, i) => (isTimePart(part) ? [i] : []));
  const values = counted ? [COUNT_COLUMN] : indexesOf(parts, 'value');
  const whole = indexesOf(parts, 'time');
  if (whole.length <= 1) {
    return [{ timeColumns: timed, timeParts: timed.map((i) => parts[i] as TimePart), valueColumns: values }];
  }
  return whole.map((at, k) => {
    const from = k === 0 ? -1 : at;
    const until = whole[k + 1] ?? Infinity;
    const inside = (i: number): boolean => i >= from && i < until;
    const timeColumns = timed.filter((i) => (k === 0 ? i < until : inside(i)));
    return {
      timeColumns,
      timeParts: timeColumns.map((i) => parts[i] as TimePart),
      valueColumns: values.filter(inside),
    };
  });
}
