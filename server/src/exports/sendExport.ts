import { once } from 'node:events';
import { MessageChannel } from 'node:worker_threads';
import type { Response } from 'express';
import type { WorkerPool } from '../workers/workerPool';
import type { FromWriter, ToWriter } from './exportMessages';
import type { ExportFormat } from '@vivid-beacon/core';
import { EXPORT_TYPES, type ExportPiece } from './formats';

/** Longest time a receiver may take nothing before its download is aborted. */
const SLOWEST_MS = 30_000;

/**
 * Sends a file that another thread writes. Samples are read no faster than the receiver takes them.
 *
 * @throws when the receiver has gone or took nothing for 30 s; {BeaconError} TOO_MANY, before anything is sent, when too
 *         many files are under way.
 */
export async function sendExport(
  response: Response,
  pool: WorkerPool,
  { format, name, pieces }: { format: ExportFormat; name: string; pieces: AsyncIterable<ExportPiece> },
): Promise<void> {
  const { port1: port, port2 } = new MessageChannel();
  const tell = (message: ToWriter): void => port.postMessage(message);
  const gone = new AbortController();
  const leave = (): void => {
    gone.abort();
    tell({ stop: true });
  };
  let wake = (): void => undefined;
  /** One after another, so that only one waits for the receiver. */
  let sent = Promise.resolve();
  port.on('message', (message: FromWriter) => {
    if ('ready' in message) {
      wake();
      return;
    }
    if (!response.headersSent) begin(response, format, name);
    sent = sent
      .then(() => handOn(response, message.bytes, gone.signal))
      .then(
        () => tell({ taken: message.bytes.length }),
        () => void response.destroy(),
      );
  });
  response.once('close', leave);
  const written = pool.run<null>('writeExport', { format, port: port2 }, { transfer: [port2] });
  try {
    for await (const piece of pieces) {
      const ready = new Promise<void>((resolve) => (wake = resolve));
      tell({ piece });
      // The thread ends before it is ready only when it failed or the receiver has gone.
      await Promise.race([ready, written]);
      if (gone.signal.aborted) throw new Error('the receiver has gone');
    }
    tell({ end: true });
    await written;
    await sent;
    response.end();
  } catch (error) {
    tell({ stop: true });
    await written.catch(() => undefined);
    throw error;
  } finally {
    response.removeListener('close', leave);
    port.close();
  }
}

function begin(response: Response, format: ExportFormat, name: string): void {
  response.setHeader('Content-Type', EXPORT_TYPES[format]);
  response.setHeader('Content-Disposition', `attachment; filename="${name}.${format}"`);
}

/** Writes bytes and waits until the receiver can take more. @throws when it has gone or is too slow. */
async function handOn(response: Response, bytes: Uint8Array, gone: AbortSignal): Promise<void> {
  if (response.destroyed) throw new Error('the receiver has gone');
  if (response.write(bytes)) return;
  await once(response, 'drain', { signal: AbortSignal.any([gone, AbortSignal.timeout(SLOWEST_MS)]) });
}
