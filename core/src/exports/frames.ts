/** One of several answers that come in one stream, each as soon as it is there. */
export interface Frame {
  /** Which of the questions it answers, from 0. */
  readonly index: number;
  /** Status as of an answer by itself, for example 200 or 422. */
  readonly status: number;
  /** Columns of {@link writeColumns}; else JSON in UTF-8. */
  readonly columns: boolean;
  readonly body: Uint8Array<ArrayBuffer>;
}

/** index, status, columns (0 or 1) and length of the body, u32 little-endian each. */
const HEAD_BYTES = 16;

/** A frame as bytes: head, body, padding to 8 bytes. */
export function writeFrame({
  index,
  status,
  columns,
  body,
}: Omit<Frame, 'body'> & { body: Uint8Array }): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(HEAD_BYTES + padded(body.byteLength));
  const head = new DataView(bytes.buffer);
  [index, status, columns ? 1 : 0, body.byteLength].forEach((value, i) => head.setUint32(i * 4, value, true));
  bytes.set(body, HEAD_BYTES);
  return bytes;
}

/** Takes a stream of frames apart, however its chunks are cut. */
export class FrameReader {
  private waiting = new Uint8Array(0);

  /** @returns the frames that this chunk completes, each with a body in memory of its own. */
  push(chunk: Uint8Array): Frame[] {
    const all = new Uint8Array(this.waiting.byteLength + chunk.byteLength);
    all.set(this.waiting);
    all.set(chunk, this.waiting.byteLength);
    const frames: Frame[] = [];
    let at = 0;
    while (all.byteLength - at >= HEAD_BYTES) {
      const head = new DataView(all.buffer, at, HEAD_BYTES);
      const [index, status, columns, length] = [0, 4, 8, 12].map((place) => head.getUint32(place, true));
      const end = at + HEAD_BYTES + padded(length);
      if (end > all.byteLength) break;
      const body = all.slice(at + HEAD_BYTES, at + HEAD_BYTES + length);
      frames.push({ index, status, columns: columns === 1, body });
      at = end;
    }
    this.waiting = all.slice(at);
    return frames;
  }

  /** Is part of a frame still to come? */
  get cutShort(): boolean {
    return this.waiting.byteLength > 0;
  }
}

function padded(length: number): number {
  return Math.ceil(length / 8) * 8;
}
