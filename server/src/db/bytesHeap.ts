/**
 * Many byte strings as one parameter of a statement. node-postgres sends a single bytea as it is, but an
 * array of them as hexadecimal text, which both sides then pay for. In SQL a string is
 * `substring($heap::bytea from at for length)`; both are null for a null.
 */
export class BytesHeap {
  private readonly parts: Uint8Array[] = [];
  private size = 0;

  /** Adds strings. @returns where each begins (from 1) and how long it is. */
  add(strings: readonly (Uint8Array | null)[]): { at: (number | null)[]; length: (number | null)[] } {
    const at: (number | null)[] = [];
    const length: (number | null)[] = [];
    for (const bytes of strings) {
      at.push(bytes && this.size + 1);
      length.push(bytes && bytes.length);
      if (!bytes) continue;
      this.parts.push(bytes);
      this.size += bytes.length;
    }
    return { at, length };
  }

  /** All of them in one piece. */
  done(): Buffer {
    return Buffer.concat(this.parts, this.size);
  }
}
