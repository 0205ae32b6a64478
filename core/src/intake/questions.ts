import type { FoundTimes } from './findTimes';
import type { Block, ColumnPart, LayoutCorrection, Question } from './layout';
import type { TableSurvey } from './survey';

/** Columns of a table, and by how many cells most rows are longer than the headings. */
export interface Widths {
  readonly width: number;
  readonly offset: number;
}

/** The questions about a recognised table that only a person can answer. */
export function questionsOf({
  survey,
  parts,
  doubt,
  blocks,
  times,
  correct,
  corrected,
  widths,
  offset,
  hasHeadings,
}: {
  readonly survey: TableSurvey;
  readonly parts: readonly ColumnPart[];
  readonly doubt: string | null;
  readonly blocks: readonly Block[];
  readonly times: FoundTimes;
  readonly correct: LayoutCorrection;
  readonly corrected: boolean;
  readonly widths: Widths;
  readonly offset: number;
  readonly hasHeadings: boolean;
}): Question[] {
  if (survey.rows === 0) {
    return [
      {
        about: 'rows',
        words: hasHeadings
          ? 'The file has headings but no rows below them. Export it again with data, or correct which row is the heading.'
          : 'The file has no rows of data.',
      },
    ];
  }
  const questions: Question[] = [];
  if (hasHeadings && widths.offset > 0 && offset === 0 && correct.headingOffset === undefined && !corrected) {
    questions.push({
      about: 'headings',
      words: `Most rows have ${widths.width} cells, but there are only ${widths.width - widths.offset} headings. Say which columns have none.`,
    });
  }
  const dated = blocks.some(({ timeColumns, written }) => timeColumns.length > 0 || written !== undefined);
  if (
    (!dated || (blocks[0].written === undefined && blocks[0].timeParts.every((part) => part === 'clock'))) &&
    correct.fixedTime === undefined
  ) {
    questions.push({
      about: 'time',
      words:
        'No column says when its rows were measured. Choose the column of the time, or give one time for all rows.',
    });
  }
  if (blocks.every(({ valueColumns }) => valueColumns.length === 0)) {
    questions.push({
      about: 'values',
      words: 'No column holds numbers. Choose a column of values, or count the rows in periods.',
    });
  }
  if (
    doubt !== null &&
    !corrected &&
    !correct.events &&
    correct.fixedTime === undefined &&
    questions.length === 0
  ) {
    questions.push({
      about: 'names',
      words: `${doubt} Say which columns name the series, or confirm that all rows belong to one.`,
    });
  }
  if (parts.includes('time') || blocks.some(({ written }) => written !== undefined)) {
    if (times.formats.length > 1 && correct.timeFormat === undefined) {
      questions.push({
        about: 'dayOrMonth',
        words: 'The dates fit several orders. Say which number is the day.',
      });
    }
    if (times.shortYears && correct.century === undefined) {
      questions.push({ about: 'century', words: 'Years have two digits. Say which century they lie in.' });
    }
  }
  return questions;
}
