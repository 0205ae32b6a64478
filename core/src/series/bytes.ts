/** Grows a byte buffer while variable-length integers are written to it. */
export class ByteWriter {
  private bytes = new Uint8Array(256);
  private length = 0;

  private room(extra: number): void {
    if (this.length + extra <= this.bytes.length) return;
    const larger = new Uint8Array(Math.max(this.bytes.length * 2, this.length + extra));
    larger.set(this.bytes.subarray(0, this.length));
    this.bytes = larger;
  }

  byte(value: number): void {
    this.room(1);
    this.bytes[this.length++] = value;
  }

  /** A whole number 0 ≤ value ≤ 2^53 − 1, seven bits a byte, lowest first (LEB128). */
  varint(value: number): void {
    this.room(8);
    let rest = value;
    while (rest >= 128) {
      this.bytes[this.length++] = (rest % 128) + 128;
      rest = Math.floor(rest / 128);
    }
    this.bytes[this.length++] = rest;
  }

  raw(values: Uint8Array): void {
    this.room(values.length);
    this.bytes.set(values, this.length);
    this.length += values.length;
  }

  done(): Uint8Array {
    return this.bytes.slice(0, this.length);
  }
}

/** Reads what {@link ByteWriter} wrote; throws a RangeError when the bytes end too soon. */
export class ByteReader {
  private at = 0;
  constructor(private readonly bytes: Uint8Array) {}

  byte(): number {
    if (this.at >= this.bytes.length) throw new RangeError(`ByteReader: ends at byte ${this.at}`);
    return this.bytes[this.at++];
  }

  varint(): number {
    let value = 0;
    let scale = 1;
    for (;;) {
      const next = this.byte();
      value += (next & 127) * scale;
      if (next < 128) return value;
      scale *= 128;
    }
  }

  get ended(): boolean {
    return this.at >= this.bytes.length;
  }

  /** The next `length` bytes, as a view. */
  take(length: number): Uint8Array {
    if (this.at + length > this.bytes.length)
      throw new RangeError(`ByteReader: ends at byte ${this.bytes.length}`);
    this.at += length;
    return this.bytes.subarray(this.at - length, this.at);
  }

  rest(): Uint8Array {
    return this.bytes.subarray(this.at);
  }
}

/**
 * Maps a signed whole number to an unsigned one, small magnitudes first: 0, −1, 1, −2 … → 0, 1, 2, 3 …
 * Exact for |value| ≤ 2^52.
 */
export function zigzag(value: number): number {
  return value >= 0 ? value * 2 : -value * 2 - 1;
}

/** Undoes {@link zigzag}. */
export function unzigzag(value: number): number {
  return value % 2 === 0 ? value / 2 : -(value + 1) / 2;
}
