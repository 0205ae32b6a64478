import { Writable } from 'node:stream';
import type { MessagePort } from 'node:worker_threads';
import type { FromWriter } from './exportMessages';

const MAX_IN_PROGRESS = 1_000_000;

/** A stream whose bytes go to another thread, no more than a megabyte ahead of what that has taken. */
export class PortSink extends Writable {
  private underWay = 0;
  private goOn: (() => void) | null = null;
  private readonly waiting = new Set<() => void>();

  constructor(private readonly port: MessagePort) {
    super();
  }

  override _write(chunk: Buffer, _encoding: string, done: () => void): void {
    this.port.postMessage({ bytes: new Uint8Array(chunk) } satisfies FromWriter);
    this.underWay += chunk.length;
    if (this.underWay < MAX_IN_PROGRESS) done();
    else this.goOn = done;
  }

  /** The other side has handed on so many bytes. */
  taken(bytes: number): void {
    this.underWay -= bytes;
    const goOn = this.goOn;
    if (goOn && this.underWay < MAX_IN_PROGRESS) {
      this.goOn = null;
      goOn();
    }
    if (this.underWay === 0 && this.writableLength === 0) {
      for (const each of this.waiting) each();
      this.waiting.clear();
    }
  }

  /** Waits until everything that was written has been taken. */
  emptied(): Promise<void> {
    if (this.underWay === 0 && this.writableLength === 0) return Promise.resolve();
    return new Promise((resolve) => this.waiting.add(resolve));
  }
}
