import type { MessagePort } from 'node:worker_threads';
import { asTask, type TaskResult } from '../workers/workerPool';
import type { FromWriter, ToWriter } from './exportMessages';
import { PortSink } from './portSink';
import type { ExportFormat } from '@vivid-beacon/core';
import { WRITERS } from './writers';

/** Task of a worker: writes a file of samples piece by piece. It asks for the next piece when all of one has been taken. */
export function writeExport({
  format,
  port,
}: {
  format: ExportFormat;
  port: MessagePort;
}): Promise<TaskResult<null>> {
  return asTask(
    () =>
      new Promise<null>((resolve, reject) => {
        const sink = new PortSink(port);
        const writer = WRITERS[format](sink);
        const leave = (): void => port.close();
        const fail = (error: Error): void => {
          leave();
          reject(error);
        };
        sink.on('error', fail);
        port.on('message', (message: ToWriter) => {
          if ('taken' in message) sink.taken(message.taken);
          else if ('piece' in message) {
            writer
              .write(message.piece)
              .then(() => sink.emptied())
              .then(() => port.postMessage({ ready: true } satisfies FromWriter))
              .catch(fail);
          } else if ('end' in message) {
            writer
              .end()
              .then(() => sink.emptied())
              .then(() => {
                leave();
                resolve(null);
              })
              .catch(fail);
          } else {
            leave();
            resolve(null);
          }
        });
      }),
  );
}
