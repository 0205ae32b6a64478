import { BeaconError } from '@vivid-beacon/core';
import {
  compareValues,
  collisionRule,
  rowReader,
  watchOrder,
  type Balance,
  type FileLayout,
  type FileTargets,
} from '@vivid-beacon/core/src/intakeFiles';
import { FileParts, type SendPart } from './fileParts';
import { goThrough } from './scanFile';
import type { Source } from './sources/source';

export interface ReadOptions {
  readonly layout: FileLayout;
  readonly targets: FileTargets;
  readonly zone: string;
  /** Times after it are refused, ms. */
  readonly latest: number;
  /** The scan found that no values can collide. */
  readonly inOrder: boolean;
}

/** What was read, before the server has imported it. */
export interface ReadResult {
  readonly parts: number;
  readonly balance: Balance;
}

/**
 * Reads all rows of a file and hands them over in parts.
 *
 * @throws {BeaconError} BAD_INPUT when not one value could be taken, or when more values are to be added up than fit.
 */
export async function readFile(
  source: Source,
  { layout, targets, zone, latest, inOrder }: ReadOptions,
  send: SendPart,
  progress: (told: { share: number; rows: number; refused: number }) => void,
): Promise<ReadResult> {
  const parts = new FileParts(send);
  const addsUp = layout.events !== null || layout.collisions === 'sum' || layout.collisions === 'mean';
  const meetings = inOrder && !addsUp ? watchOrder() : compareValues(collisionRule(layout));
  const reader = rowReader(layout, {
    zone,
    latest,
    targets,
    meetings,
    take: ({ key }, t, v) => parts.take(targets[key].metricId, t, v),
    tell: parts.tell,
  });
  const { balance } = reader;
  await goThrough(
    source,
    layout,
    reader,
    reader.read,
    (share) => progress({ share, rows: balance.taken, refused: balance.refused }),
    () => (parts.full ? parts.flush() : undefined),
  );
  if (addsUp && meetings.overflowed) {
    throw new BeaconError(
      'BAD_INPUT',
      'The file has too many values to add up at once. Split it and bring in the pieces.',
    );
  }
  const sent = await parts.flush();
  if (balance.values.taken === 0) {
    throw new BeaconError(
      'BAD_INPUT',
      balance.refused > 0
        ? `Not one value could be taken; ${balance.refused.toLocaleString('en-GB')} lines were refused. Check the time format and the decimal sign.`
        : 'No line holds a value for a series that is taken.',
    );
  }
  return { parts: sent, balance };
}
