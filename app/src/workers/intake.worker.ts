import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import Papa from 'papaparse';
import {
  BeaconError,
  decodeText,
  recognise,
  rowReader,
  splitRows,
  type Intake,
  type Refusal,
} from '@vivid-beacon/core';
import { ApiError, call, setFormToken } from '../api/client';
import type { IntakeAsk, IntakeTold } from './intakeMessages';

const LOOK_BYTES = 256 * 1024;
const PIECE_BYTES = 512 * 1024;
const ROWS_A_BATCH = 4000;
const REFUSALS_KEPT = 100_000;
const DAY_MS = 86_400_000;
const DECODER = {
  'UTF-8': 'utf-8',
  'UTF-16 LE': 'utf-16le',
  'UTF-16 BE': 'utf-16be',
  'Windows-1252': 'windows-1252',
};

const tell = (told: IntakeTold): void =>
  (self as unknown as { postMessage: (told: IntakeTold) => void }).postMessage(told);

self.onmessage = ({ data: ask }: MessageEvent<IntakeAsk>) => {
  const work = ask.kind === 'look' ? look(ask) : read(ask);
  work.catch((error: unknown) => {
    const known = error instanceof BeaconError || error instanceof ApiError;
    tell({
      kind: 'failed',
      message: known ? error.message : `The file could not be read. ${(error as Error).message}`,
    });
  });
};

/** Decodes the first part of the file; a character cut at its end is left out. */
async function firstPart(file: File): Promise<ReturnType<typeof decodeText>> {
  const bytes = new Uint8Array(await file.slice(0, LOOK_BYTES).arrayBuffer());
  if (file.size <= LOOK_BYTES) return decodeText(bytes);
  for (let cut = 0; cut < 4; cut++) {
    const decoded = decodeText(bytes.subarray(0, bytes.length - cut));
    if (decoded.encoding !== 'Windows-1252') return decoded;
  }
  return decodeText(bytes);
}

async function look(ask: Extract<IntakeAsk, { kind: 'look' }>): Promise<void> {
  const { text, encoding } = await firstPart(ask.file);
  tell({ kind: 'looked', recognised: recognise(text, ask.correct), encoding });
}

/** Rows on their way to the server: one column of numbers a metric. */
class Batches {
  private seq = 0;
  private rows = 0;
  private refusals: Refusal[] = [];
  private readonly columns: { metricId: string; t: number[]; v: number[] }[];
  refused = 0;
  taken = 0;

  constructor(
    private readonly intakeId: string,
    metricIds: readonly string[],
  ) {
    this.columns = metricIds.map((metricId) => ({ metricId, t: [], v: [] }));
  }

  refuse = (refusal: Refusal): void => {
    this.refused++;
    if (this.refused <= REFUSALS_KEPT) this.refusals.push(refusal);
  };

  add(t: number, values: readonly number[]): void {
    this.rows++;
    this.taken++;
    values.forEach((value, i) => {
      if (Number.isNaN(value)) return;
      this.columns[i].t.push(t);
      this.columns[i].v.push(value);
    });
  }

  get full(): boolean {
    return this.rows * this.columns.length >= ROWS_A_BATCH || this.refusals.length >= ROWS_A_BATCH;
  }

  /** @returns how many batches were sent so far. */
  async send(): Promise<number> {
    if (this.rows > 0 || this.refusals.length > 0) {
      await call('POST', `/api/intakes/${this.intakeId}/batches`, {
        seq: this.seq,
        parts: this.columns.filter(({ t }) => t.length > 0),
        refusals: this.refusals,
      });
      this.seq++;
      this.rows = 0;
      this.refusals = [];
      for (const column of this.columns) {
        column.t = [];
        column.v = [];
      }
    }
    return this.seq;
  }
}

async function read(ask: Extract<IntakeAsk, { kind: 'read' }>): Promise<void> {
  const { file, layout, targets, zone, now } = ask;
  setFormToken(ask.formToken);
  const { encoding } = await firstPart(file);
  const { id } = await call<{ id: string }>('POST', '/api/intakes', {
    fileName: file.name,
    fileSize: file.size,
    fileHash: await hashOf(file),
    layout: { ...layout, encoding, zone },
  });
  const batches = new Batches(
    id,
    targets.map(({ metricId }) => metricId),
  );
  const reader = rowReader(layout, targets, zone, now + DAY_MS);
  try {
    const decoder = new TextDecoder(DECODER[encoding]);
    let rest = '';
    let line = 1;
    let skip: number = layout.headingRows;
    for (let at = 0; at < file.size; at += PIECE_BYTES) {
      const bytes = await file.slice(at, at + PIECE_BYTES).arrayBuffer();
      const last = at + PIECE_BYTES >= file.size;
      const piece = splitRows(rest + decoder.decode(bytes, { stream: !last }) + (last ? '\n' : ''));
      rest = piece.rest;
      const { data } = Papa.parse<string[]>(piece.whole, { delimiter: layout.separator });
      // The text ends with a line end, after which the parser sees one more, empty row.
      if (data.length > 0 && isEmpty(data[data.length - 1])) data.pop();
      for (const cells of data) {
        const here = line;
        line += 1 + innerLineEnds(cells);
        if (isEmpty(cells)) continue;
        if (skip > 0) {
          skip--;
          continue;
        }
        const row = reader.read(cells, here, batches.refuse);
        if (row) batches.add(row.t, row.values);
        if (batches.full) await batches.send();
      }
      tell({
        kind: 'progress',
        share: Math.min(1, (at + PIECE_BYTES) / file.size),
        rows: batches.taken,
        refused: batches.refused,
      });
    }
    const sent = await batches.send();
    if (batches.taken === 0) {
      throw new BeaconError(
        'BAD_INPUT',
        batches.refused > 0
          ? `None of the rows could be taken; all ${batches.refused} were refused. Check the time format and the decimal sign.`
          : 'The file has headings but no rows of data.',
      );
    }
    const intake = await call<Intake>('POST', `/api/intakes/${id}/finish`, {
      batches: sent,
      rows: batches.taken,
      refused: batches.refused,
    });
    tell({ kind: 'done', intake, ...reader.counts });
  } catch (error) {
    // Nothing of a file that failed half-way stays.
    await call('DELETE', `/api/intakes/${id}`).catch(() => undefined);
    throw error;
  }
}

async function hashOf(file: File): Promise<string> {
  const hash = sha256.create();
  for (let at = 0; at < file.size; at += 4 * PIECE_BYTES) {
    hash.update(new Uint8Array(await file.slice(at, at + 4 * PIECE_BYTES).arrayBuffer()));
  }
  return bytesToHex(hash.digest());
}

function isEmpty(cells: readonly string[]): boolean {
  return cells.every((cell) => cell.trim() === '');
}

function innerLineEnds(cells: readonly string[]): number {
  return cells.reduce((n, cell) => (cell.includes('\n') ? n + cell.split('\n').length - 1 : n), 0);
}
