import Papa from 'papaparse';
import { LEFT_OUT_REASONS, TOLD_WORDS, type LeftOutReason } from '@vivid-beacon/core/src/intakeFiles';
import type { Look } from '../../workers/lookAt';

/** The balance of a file that is not brought in yet, as CSV: counts, columns, and the first lines told of each kind. */
export function balanceText({ balance, recognised, told, toldCounts }: Look, file: string): string {
  const data: (string | number)[][] = [
    ['count', '', '', balance.lines, 'lines of the file'],
    ['count', '', '', balance.taken, 'lines that would be taken'],
    ['count', '', '', balance.refused, 'lines that would be refused'],
    ['count', '', '', balance.repeated, 'lines repeated'],
    ...Object.entries(balance.leftOut)
      .filter(([, n]) => n > 0)
      .map(([reason, n]) => [
        'count',
        '',
        '',
        n,
        `lines left out: ${LEFT_OUT_REASONS[reason as LeftOutReason]}`,
      ]),
    ...recognised.columns.map(({ heading, part, note }) => ['column', '', heading, part, note]),
    ...told.map(({ kind, line, column, value, reason }) => [TOLD_WORDS[kind], line, column, value, reason]),
  ];
  const kept = (kind: keyof typeof toldCounts): number => told.filter((each) => each.kind === kind).length;
  for (const kind of Object.keys(toldCounts) as (keyof typeof toldCounts)[]) {
    const more = toldCounts[kind] - kept(kind);
    if (more > 0) data.push(['count', '', '', more, `further lines: ${TOLD_WORDS[kind]}`]);
  }
  return Papa.unparse(
    {
      fields: ['file', 'kind', 'line', 'column', 'value', 'reason'],
      data: data.map((row) => [file, ...row]),
    },
    { escapeFormulae: true, newline: '\r\n' },
  );
}
