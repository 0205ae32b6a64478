import { amount, oneOf, shape, text, type TypeOf } from '../schemas/shape';

/** Reasons why a line was left out: not refused, but nothing is taken from it. */
export const LEFT_OUT_REASONS = {
  aboveHeadings: 'above the headings',
  heading: 'as headings',
  headingAgain: 'as headings that come again',
  blank: 'blank',
  continued: 'inside a quoted cell',
  total: 'as totals of the rows above',
  noValue: 'without a value in any column that is taken',
  notChosen: 'of series that are left out',
} as const;
export type LeftOutReason = keyof typeof LEFT_OUT_REASONS;

/** The outcome of every line of a file: taken + refused + left out + repeated = lines. */
export interface Balance {
  lines: number;
  /** Lines of which at least one value was taken. */
  taken: number;
  /** Lines of which no value was taken and at least one was refused. */
  refused: number;
  /** Lines that only repeat an earlier line. */
  repeated: number;
  leftOut: Record<LeftOutReason, number>;
  /** The outcome of the cells of taken columns. Each counts once; `taken` is the number of samples. */
  values: {
    taken: number;
    refused: number;
    repeated: number;
    /** Values that collided with a different one of the same series and time, or were added to it. */
    met: number;
    blank: number;
    errors: number;
    /** Of series that are left out. */
    notChosen: number;
  };
  /** Times in the repeated hour of a clock change. */
  repeatedHour: number;
  /** Rows with fewer cells than there are columns. */
  shortRows: number;
}

export function emptyBalance(): Balance {
  return {
    lines: 0,
    taken: 0,
    refused: 0,
    repeated: 0,
    leftOut: {
      aboveHeadings: 0,
      heading: 0,
      headingAgain: 0,
      blank: 0,
      continued: 0,
      total: 0,
      noValue: 0,
      notChosen: 0,
    },
    values: { taken: 0, refused: 0, repeated: 0, met: 0, blank: 0, errors: 0, notChosen: 0 },
    repeatedHour: 0,
    shortRows: 0,
  };
}

export function leftOutLines({ leftOut }: Balance): number {
  return Object.values(leftOut).reduce((sum, n) => sum + n, 0);
}

/** Lines missing from the balance; 0 unless the program lost some. */
export function unexplained(balance: Balance): number {
  return balance.lines - balance.taken - balance.refused - balance.repeated - leftOutLines(balance);
}

const TOLD_KINDS = ['refused', 'leftOut', 'repeated', 'met', 'short'] as const;

/** A report about one line of a file. */
export const reportedLine = shape({
  kind: oneOf(TOLD_KINDS),
  /** Line in the file, from 1. */
  line: amount(),
  column: text(),
  value: text(),
  reason: text(),
});
export type ReportedLine = TypeOf<typeof reportedLine>;

export const REPORTED_WORDS: Readonly<Record<ReportedLine['kind'], string>> = {
  refused: 'refused',
  leftOut: 'left out',
  repeated: 'repeated',
  met: 'values meet',
  short: 'short row',
};
