/** Starts the thread that reads files. */
export function makeIntakeWorker(): Worker {
  return new Worker(new URL('./intake.worker.ts', window.location.href));
}
