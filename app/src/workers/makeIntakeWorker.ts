/** Starts the worker that reads a kind of file. */
export function makeIntakeWorker(kind: 'text' | 'sheet'): Worker {
  return kind === 'text'
    ? new Worker(new URL('./intake.worker.ts', window.location.href))
    : new Worker(new URL('./sheet.worker.ts', window.location.href));
}
