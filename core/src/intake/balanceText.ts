import Papa from 'papaparse';
import {
  LEFT_OUT_REASONS,
  REPORTED_WORDS,
  type Balance,
  type LeftOutReason,
  type ReportedLine,
} from './balance';
import type { FoundColumn } from './layout';

/** The content of a balance file. */
export interface BalanceParts {
  readonly file: string;
  /** null for a file imported before balances were stored. */
  readonly balance: Balance | null;
  readonly columns: readonly Pick<FoundColumn, 'heading' | 'part' | 'note'>[];
  readonly lines: readonly ReportedLine[];
  /** Whether the file is not imported yet: its lines would be taken. */
  readonly before: boolean;
  /** How many lines of each kind there are, where only the first are at hand. */
  readonly counts?: Readonly<Record<ReportedLine['kind'], number>>;
}

/**
 * The balance of a file as CSV with the columns file, kind, line, column, value, reason: counts first, then
 * the outcome of each column, then every reported line. Cells that a spreadsheet would run as a formula are
 * escaped.
 */
export function balanceText({ file, balance, columns, lines, before, counts }: BalanceParts): string {
  const would = before ? 'that would be ' : '';
  const data: (string | number)[][] = [];
  const count = (n: number, reason: string): void => void data.push([file, 'count', '', '', n, reason]);
  if (balance) {
    count(balance.lines, 'lines of the file');
    count(balance.taken, `lines ${would}taken`);
    count(balance.refused, `lines ${would}refused`);
    count(balance.repeated, 'lines repeated');
    for (const [reason, n] of Object.entries(balance.leftOut)) {
      if (n > 0) count(n, `lines left out: ${LEFT_OUT_REASONS[reason as LeftOutReason]}`);
    }
  }
  for (const { heading, part, note } of columns) data.push([file, 'column', '', heading, part, note]);
  for (const { kind, line, column, value, reason } of lines) {
    data.push([file, REPORTED_WORDS[kind], line, column, value, reason]);
  }
  for (const kind of Object.keys(counts ?? {}) as ReportedLine['kind'][]) {
    const more = counts![kind] - lines.filter((each) => each.kind === kind).length;
    if (more > 0) count(more, `further lines: ${REPORTED_WORDS[kind]}`);
  }
  const text = Papa.unparse(
    { fields: ['file', 'kind', 'line', 'column', 'value', 'reason'], data },
    { escapeFormulae: true, newline: '\r\n' },
  );
  // The byte order mark tells spreadsheets that the text is UTF-8.
  return `\uFEFF${text}\r\n`;
}
