import Papa from 'papaparse';
import type { Intake } from '@vivid-beacon/core';
import {
  LEFT_OUT_REASONS,
  TOLD_WORDS,
  type LeftOutReason,
  type ToldLine,
} from '@vivid-beacon/core/src/intakeFiles';

/**
 * The balance of an intake as CSV: its counts, what became of each column, and every line that is told of. Cells that a
 * spreadsheet would run as a formula are escaped.
 */
export function balanceFile(intake: Omit<Intake, 'lines'>, lines: readonly ToldLine[]): string {
  const { balance, columns = [] } = intake.notes;
  const data: (string | number)[][] = [];
  const put = (
    kind: string,
    line: number | '',
    column: string,
    value: string | number,
    reason: string,
  ): void => {
    data.push([intake.fileName, kind, line, column, value, reason]);
  };
  if (balance) {
    put('count', '', '', balance.lines, 'lines of the file');
    put('count', '', '', balance.taken, 'lines taken');
    put('count', '', '', balance.refused, 'lines refused');
    put('count', '', '', balance.repeated, 'lines repeated');
    for (const [reason, n] of Object.entries(balance.leftOut)) {
      if (n > 0) put('count', '', '', n, `lines left out: ${LEFT_OUT_REASONS[reason as LeftOutReason]}`);
    }
  }
  for (const { heading, part, note } of columns) put('column', '', heading, part, note);
  for (const { kind, line, column, value, reason } of lines)
    put(TOLD_WORDS[kind], line, column, value, reason);
  const text = Papa.unparse(
    { fields: ['file', 'kind', 'line', 'column', 'value', 'reason'], data },
    { escapeFormulae: true, newline: '\r\n' },
  );
  return `\uFEFF${text}\r\n`;
}
