import type { QueryAnswer } from '../domain/query';
import { formatNumber } from '../format/format';
import { MAX_NOTES, type LogNote, type NotesAnswer, type NotesAsk } from '../logs/logNotes';
import type { Bucket } from '../time/buckets';
import type { Interval } from '../time/interval';
import { HOUR_MS } from '../time/lengths';
import type { ReadingAnswers, ReadingRequest, ReadoutInputs } from './readoutData';
import type { TableChoices, TableNote } from './tableChoices';
import type { TableCell } from './tableColumns';
import { depthsOf, firstRound, periodAnswers, type Line } from './tableLines';

/* What the stop log and remarks say of each row of a table. */

const MOST_ASSETS = 5000;

/** The request for what the logs say of the assets that are rows; [] if nothing is asked for, or of too many rows. */
export function notesRequests(
  inputs: ReadoutInputs<TableChoices>,
  answers: ReadingAnswers,
): readonly ReadingRequest[] {
  const ask = notesAskOf(inputs, answers);
  return ask === null || ask === 'too many' ? [] : [{ kind: 'notes', ask, isExtra: true }];
}

function notesAskOf(
  { readout, window, hours }: ReadoutInputs<TableChoices>,
  answers: ReadingAnswers,
): NotesAsk | 'too many' | null {
  if (readout.notes.length === 0 || readout.groupBy === null) return null;
  const depths = answers.slice(0, depthsOf(readout)) as readonly (QueryAnswer | undefined)[];
  const assetIds = [
    ...new Set(depths.flatMap((answer) => answer?.groups.flatMap(({ assetId }) => assetId ?? []) ?? [])),
  ];
  const periods = rowPeriods(readout, answers)?.start.length ?? 0;
  if (assetIds.length === 0 || depths[0] === undefined) return null;
  if (assetIds.length > MOST_ASSETS || assetIds.length * (1 + periods) > MAX_NOTES) return 'too many';
  return { assetIds, window, bucket: periods > 0 ? (readout.periods as Bucket) : null, hours };
}

/** The periods that are rows; null where none are. */
function rowPeriods(
  readout: ReadoutInputs<TableChoices>['readout'],
  answers: ReadingAnswers,
): QueryAnswer | null {
  if (readout.periodsAs !== 'rows' || readout.periods === 'none') return null;
  return periodAnswers(readout, answers)[0] ?? null;
}

/** What the logs say, by row. */
export interface TableNotes {
  /** null = they cannot say anything of such a row. */
  readonly cell: (line: Line, kind: TableNote) => TableCell | null;
  /** Whether there are too many rows to ask for. */
  readonly tooMany: boolean;
}

/** @param answers of both rounds. @returns null while they are not there, or if nothing is asked for. */
export function notesOf(inputs: ReadoutInputs<TableChoices>, answers: ReadingAnswers): TableNotes | null {
  const { readout } = inputs;
  const ask = notesAskOf(inputs, answers);
  if (ask === null) return null;
  if (ask === 'too many') return { cell: () => null, tooMany: true };
  const answer = answers[firstRound(readout)] as NotesAnswer | undefined;
  if (!answer) return null;
  const asked = new Set(ask.assetIds);
  const spanAt = new Map(rowPeriods(readout, answers)?.start.map((start, i) => [start, i + 1]));
  const known = new Map(answer.notes.map((note) => [`${note.assetId} ${note.span}`, note]));
  return {
    tooMany: false,
    cell: ({ row, time }, kind) => {
      const span = spanOf(time, spanAt);
      if (row.assetId === null || !asked.has(row.assetId) || span === undefined) return null;
      return cellOf(known.get(`${row.assetId} ${span}`), kind);
    },
  };
}

const spanOf = (time: Interval | null, spanAt: ReadonlyMap<number, number>): number | undefined =>
  time === null ? 0 : spanAt.get(time.start);

const hours = (ms: number): string => `${formatNumber(ms / HOUR_MS, 1)} h`;

function cellOf(note: LogNote | undefined, kind: TableNote): TableCell {
  const cell = { level: 'clear', coverage: 1, of: null } as const;
  if (kind === 'remarks') {
    const remarks = note?.remarks ?? [];
    return { ...cell, value: remarks.length, text: remarks.join('; ') };
  }
  const reasons = note?.reasons.map(({ reason, ms }) => `${reason || 'no reason'} ${hours(ms)}`) ?? [];
  const text = reasons.length === 0 ? 'none in the log' : reasons.join(', ');
  return {
    ...cell,
    value: (note?.stoppedMs ?? 0) / HOUR_MS,
    text: note?.open ? `stopped now; ${text}` : text,
  };
}
