/** One of several answers in a stream, each sent as soon as it is ready. */
export interface Frame {
  /** Index of the request it answers, from 0. */
  readonly index: number;
  /** HTTP status of this answer alone, for example 200 or 422. */
  readonly status: number;
  /** Columns of {@link encodeColumns}; else JSON in UTF-8. */
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

/** Splits a stream into frames, wherever its chunks are cut. */
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

  /** Whether part of a frame is still to come. */
  get cutShort(): boolean {
    return this.waiting.byteLength > 0;
  }
}

function padded(length: number): number {
  return Math.ceil(length / 8) * 8;
}
