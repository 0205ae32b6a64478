import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils';
import { DAY_MS, BeaconError, type Intake } from '@vivid-beacon/core';
import type { Recognised } from '@vivid-beacon/core/src/intakeFiles';
import { ApiError, call, sendBytes, setFormToken } from '../api/client';
import type { IntakeAsk, IntakeTold } from './intakeMessages';
import { lookAt, readFile } from './readFile';
import type { Source } from './sources/source';

const HASH_BYTES = 4 * 1024 * 1024;

type Open = (ask: IntakeAsk) => Promise<Source>;

const tell = (told: IntakeTold): void =>
  (self as unknown as { postMessage: (told: IntakeTold) => void }).postMessage(told);

/** Makes this thread answer the intake screen, with a way to open its kind of file. */
export function runIntake(open: Open): void {
  self.onmessage = ({ data: ask }: MessageEvent<IntakeAsk>) => {
    const work = ask.kind === 'look' ? look(ask, open) : read(ask, open);
    work.catch((error: unknown) => {
      const known = error instanceof BeaconError || error instanceof ApiError;
      tell({
        kind: 'failed',
        message: known ? error.message : `The file could not be read. ${(error as Error).message}`,
      });
    });
  };
}

async function look(ask: Extract<IntakeAsk, { kind: 'look' }>, open: Open): Promise<void> {
  const source = await open(ask);
  const found = await lookAt(source, ask.correct, (share) =>
    tell({ kind: 'progress', share, rows: 0, refused: 0 }),
  );
  tell({ kind: 'looked', shape: shapeOf(found.recognised), ...found });
}

/** Files with the same headings in the same order, cut the same way, are of one shape. */
function shapeOf({ layout, columns, names }: Recognised): string {
  const headings = columns.map(({ heading, unit }) => [heading, unit]);
  // Columns without names tell nothing: then the names of the metrics must.
  const parts = [layout.separator, headings, layout.headingRows === 0 ? names : null];
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(parts))));
}

async function read(ask: Extract<IntakeAsk, { kind: 'read' }>, open: Open): Promise<void> {
  const { file, layout, targets, zone, now, remember } = ask;
  setFormToken(ask.formToken);
  const source = await open(ask);
  const { id } = await call<{ id: string }>('POST', '/api/intakes', {
    fileName: ask.sheet === null ? file.name : `${file.name}, ${ask.sheet}`,
    fileSize: file.size,
    fileHash: await hashOf(file),
    layout: { ...layout, encoding: source.encoding, zone },
  });
  try {
    const result = await readFile(
      source,
      { layout, targets, zone, latest: now + DAY_MS },
      (bytes) => sendBytes(`/api/intakes/${id}/parts`, bytes),
      (told) => tell({ kind: 'progress', ...told }),
    );
    tell({ kind: 'storing' });
    const intake = await call<Intake>('POST', `/api/intakes/${id}/finish`, {
      batches: result.parts,
      rows: result.rows,
      refused: result.refused,
      notes: result.counts,
      remember,
    });
    tell({ kind: 'done', intake, counts: result.counts });
  } catch (error) {
    // Nothing of a file that failed half-way stays.
    await call('DELETE', `/api/intakes/${id}`).catch(() => undefined);
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
