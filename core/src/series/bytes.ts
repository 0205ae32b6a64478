/** Writes variable-length integers into a growing byte buffer. */
export class ByteWriter {
  private bytes: Uint8Array;
  private length = 0;

  /** @param room expected number of bytes. */
  constructor(room = 256) {
    this.bytes = new Uint8Array(room);
  }

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
    if (this.length + 8 > this.bytes.length) this.room(8);
    const { bytes } = this;
    let at = this.length;
    let rest = value;
    // Bit operations are exact below 2^31 and several times faster.
    while (rest >= 0x80000000) {
      bytes[at++] = (rest % 128) + 128;
      rest = Math.floor(rest / 128);
    }
    while (rest >= 128) {
      bytes[at++] = (rest & 127) | 128;
      rest >>>= 7;
    }
    bytes[at++] = rest;
    this.length = at;
  }

  raw(values: Uint8Array): void {
    this.room(values.length);
    this.bytes.set(values, this.length);
    this.length += values.length;
  }

  /** Starts over in the same buffer; earlier results of {@link done} are overwritten. */
  clear(): this {
    this.length = 0;
    return this;
  }

  done(): Uint8Array {
    return this.bytes.subarray(0, this.length);
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
    const { bytes } = this;
    if (this.at >= bytes.length) throw new RangeError(`ByteReader: ends at byte ${this.at}`);
    const first = bytes[this.at++];
    if (first < 128) return first;
    let value = first & 127;
    let scale = 128;
    for (;;) {
      const next = this.byte();
      value += (next & 127) * scale;
      if (next < 128) return value;
      scale *= 128;
    }
  }

  /**
   * Fills `into` with the running totals of as many zigzag varints. One loop without calls, because most
   * reading is spent here. @throws {RangeError} when cut short.
   */
  runningTotals(into: Float64Array): void {
    const { bytes } = this;
    const length = bytes.length;
    let { at } = this;
    let total = 0;
    for (let i = 0; i < into.length; i++) {
      if (at >= length) throw new RangeError(`ByteReader: ends at byte ${length}`);
      let value = bytes[at++];
      if (value >= 128) {
        value &= 127;
        let scale = 128;
        for (;;) {
          if (at >= length) throw new RangeError(`ByteReader: ends at byte ${length}`);
          const next = bytes[at++];
          value += (next & 127) * scale;
          if (next < 128) break;
          scale *= 128;
        }
      }
      total += unzigzag(value);
      into[i] = total;
    }
    this.at = at;
  }

  /** Number of bytes read. */
  get position(): number {
    return this.at;
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

const WHOLE_LIMIT = 2 ** 31;

/** Undoes {@link zigzag}. */
export function unzigzag(value: number): number {
  // Nearly all are small enough for integer operations, which take a fraction of the time.
  if (value < WHOLE_LIMIT) return (value & 1) === 0 ? value >>> 1 : -(value >>> 1) - 1;
  return value % 2 === 0 ? value / 2 : -(value + 1) / 2;
}
