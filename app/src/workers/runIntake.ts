import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import { BeaconError, DAY_MS } from '@vivid-beacon/core';
import { ApiError, call, sendContent, setFormToken } from '../api/client';
import type { IntakeCommand, IntakeEvent } from './intakeMessages';
import { scanFile } from './scanFile';
import { readFile } from './readFile';
import { shapeOf } from './shapeOf';
import type { Source } from './sources/source';

const BYTES = 'application/octet-stream';
const HASH_BYTES = 4 * 1024 * 1024;

type Open = (ask: IntakeCommand) => Promise<Source>;

const tell = (told: IntakeEvent): void =>
  (self as unknown as { postMessage: (told: IntakeEvent) => void }).postMessage(told);

/** Makes this worker answer the intake screen. @param open opens its kind of file. */
export function runIntake(open: Open): void {
  self.onmessage = ({ data: ask }: MessageEvent<IntakeCommand>) => {
    const work = ask.kind === 'scan' ? scan(ask, open) : read(ask, open);
    work.catch((error: unknown) => {
      const known = error instanceof BeaconError || error instanceof ApiError;
      tell({
        kind: 'failed',
        message: known ? error.message : `The file could not be read. ${(error as Error).message}`,
      });
    });
  };
}

async function scan(ask: Extract<IntakeCommand, { kind: 'scan' }>, open: Open): Promise<void> {
  const found = await scanFile(await open(ask), {
    correct: ask.correct,
    zone: ask.zone,
    latest: ask.now + DAY_MS,
    progress: (share) => tell({ kind: 'progress', share, rows: 0, refused: 0 }),
  });
  tell({ kind: 'looked', shape: shapeOf(found), ...found });
}

/** Sends all of a file to the server, which says what storing it would change. */
async function read(ask: Extract<IntakeCommand, { kind: 'read' }>, open: Open): Promise<void> {
  const { file, layout, targets, zone, now, inOrder } = ask;
  setFormToken(ask.formToken);
  const source = await open(ask);
  const { id } = await call('POST /api/intakes', {
    body: {
      fileName: ask.sheet === null ? file.name : `${file.name}, ${ask.sheet}`,
      fileSize: file.size,
      fileHash: await hashOf(file),
      layout: { ...layout, encoding: source.encoding, zone },
      // Colliding values are combined here; only where the last one wins may parts of the file contradict
      // each other.
      collisions: layout.collisions === 'last' ? 'last' : 'refuse',
    },
  });
  tell({ kind: 'begun', intakeId: id });
  try {
    const { parts, balance } = await readFile(
      source,
      { layout, targets, zone, latest: now + DAY_MS, inOrder },
      (data) => sendContent('POST /api/intakes/:id/parts', { params: { id } }, { type: BYTES, data }),
      (told) => tell({ kind: 'progress', ...told }),
    );
    const effects = await call('GET /api/intakes/:id/check', { params: { id } });
    tell({ kind: 'sent', intakeId: id, parts, balance, effects });
  } catch (error) {
    // Nothing of a file that failed half-way stays.
    await call('DELETE /api/intakes/:id', { params: { id } }).catch(() => undefined);
    throw error;
  }
}

async function hashOf(file: File): Promise<string> {
  const hash = sha256.create();
  for (let at = 0; at < file.size; at += HASH_BYTES) {
    hash.update(new Uint8Array(await file.slice(at, at + HASH_BYTES).arrayBuffer()));
  }
  return bytesToHex(hash.digest());
}
