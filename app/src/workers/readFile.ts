import { BeaconError } from '@vivid-beacon/core';
import {
  recogniseRows,
  rowReader,
  type FileLayout,
  type FileTargets,
  type LayoutCorrection,
  type ReadCounts,
  type Recognised,
} from '@vivid-beacon/core/src/intakeFiles';
import { FileParts, type SendPart } from './fileParts';
import type { Source } from './sources/source';

/** What a look at a file found. */
export interface Look {
  readonly recognised: Recognised;
  readonly encoding: string;
  readonly sheets: readonly string[];
  readonly sheet: string | null;
}

const MOST_NAMES = 10_000;

/** Recognises a file; of one row per sample all rows are looked at, to know every name. */
export async function lookAt(
  source: Source,
  correct: LayoutCorrection,
  progress: (share: number) => void,
): Promise<Look> {
  const { encoding, sheets, sheet } = source;
  const recognised = recogniseRows(source.head, source.separator, correct);
  if (recognised.layout.shape === 'columns') return { recognised, encoding, sheets, sheet };
  const names = await allNames(source, recognised, progress);
  return { recognised: { ...recognised, names }, encoding, sheets, sheet };
}

async function allNames(
  source: Source,
  { layout }: Recognised,
  progress: (share: number) => void,
): Promise<Recognised['names']> {
  const names = new Map<string, string | null>();
  let skip = layout.preambleRows + layout.headingRows;
  for await (const { rows, share } of source.rows(() => undefined)) {
    for (const cells of rows) {
      if (skip > 0) {
        skip--;
        continue;
      }
      const name = layout.nameColumns
        .map((i) => (cells[i] ?? '').trim())
        .filter(Boolean)
        .join(' / ');
      if (name === '' || names.has(name)) continue;
      if (names.size >= MOST_NAMES) {
        throw new BeaconError(
          'BAD_INPUT',
          `The name columns hold more than ${MOST_NAMES} different names. Choose other columns, or one column per metric.`,
        );
      }
      names.set(name, layout.unitColumn === null ? null : (cells[layout.unitColumn] ?? '').trim() || null);
    }
    progress(share);
  }
  return [...names].map(([name, unit]) => ({ name, unit }));
}

export interface ReadOptions {
  readonly layout: FileLayout;
  readonly targets: FileTargets;
  readonly zone: string;
  /** Times after it are refused, ms. */
  readonly latest: number;
}

/** What was read, before the server has brought it in. */
export interface ReadResult {
  readonly parts: number;
  readonly rows: number;
  readonly refused: number;
  readonly counts: ReadCounts;
}

/**
 * Reads all rows of a file and hands them over in parts.
 *
 * @throws {BeaconError} BAD_INPUT when not one row could be taken.
 */
export async function readFile(
  source: Source,
  { layout, targets, zone, latest }: ReadOptions,
  send: SendPart,
  progress: (told: { share: number; rows: number; refused: number }) => void,
): Promise<ReadResult> {
  const parts = new FileParts(send);
  const reader = rowReader(layout, targets, zone, latest);
  let skip = layout.preambleRows + layout.headingRows;
  const refuseLine = (line: number, text: string, reason: string): void =>
    parts.refuse({ line, column: '', value: text, reason });
  for await (const { rows, lines, share } of source.rows(refuseLine)) {
    for (let i = 0; i < rows.length; i++) {
      if (skip > 0) {
        skip--;
        continue;
      }
      if (reader.read(rows[i], lines[i], parts.take, parts.refuse)) parts.taken++;
      if (parts.full) await parts.flush();
    }
    progress({ share, rows: parts.taken, refused: parts.refused });
  }
  const sent = await parts.flush();
  if (parts.taken === 0) {
    throw new BeaconError(
      'BAD_INPUT',
      parts.refused > 0
        ? `None of the rows could be taken; all ${parts.refused} were refused. Check the time format and the decimal sign.`
        : 'The file has headings but no rows of data that feed a metric.',
    );
  }
  return { parts: sent, rows: parts.taken, refused: parts.refused, counts: reader.counts };
}
