/**
 * Long answers as bytes: a head in JSON, then columns of float64. Layout: u32 little-endian length of the
 * head in UTF-8; the head; zeros up to a multiple of 8; the columns one after another, little-endian. The
 * head's `columns` names them with their lengths.
 */
export interface ColumnsHead {
  readonly columns: readonly { readonly name: string; readonly length: number }[];
}

export interface ColumnsMessage<Head> {
  readonly head: Head & ColumnsHead;
  readonly columns: ReadonlyMap<string, Float64Array>;
}

/** Writes a head and columns. Missing values are NaN. */
export function encodeColumns<Head extends object>(
  head: Head,
  columns: readonly (readonly [string, ArrayLike<number>])[],
): Uint8Array<ArrayBuffer> {
  const named = columns.map(([name, values]) => ({ name, length: values.length }));
  const text = new TextEncoder().encode(JSON.stringify({ ...head, columns: named }));
  const begin = Math.ceil((4 + text.length) / 8) * 8;
  const total = columns.reduce((n, [, values]) => n + values.length * 8, begin);
  const bytes = new Uint8Array(total);
  new DataView(bytes.buffer).setUint32(0, text.length, true);
  bytes.set(text, 4);
  let at = begin;
  for (const [, values] of columns) {
    new Float64Array(bytes.buffer, at, values.length).set(values);
    at += values.length * 8;
  }
  return bytes;
}

/** Reads what {@link encodeColumns} wrote; columns are views on the same memory. @throws {RangeError} when cut short. */
export function decodeColumns<Head>(buffer: ArrayBuffer): ColumnsMessage<Head> {
  if (buffer.byteLength < 4) throw new RangeError('decodeColumns: no head');
  const length = new DataView(buffer).getUint32(0, true);
  if (4 + length > buffer.byteLength) throw new RangeError('decodeColumns: the head is cut short');
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 4, length))) as Head & ColumnsHead;
  let at = Math.ceil((4 + length) / 8) * 8;
  const columns = new Map<string, Float64Array>();
  for (const column of head.columns) {
    if (at + column.length * 8 > buffer.byteLength) {
      throw new RangeError(`decodeColumns: column ${column.name} is cut short`);
    }
    columns.set(column.name, new Float64Array(buffer, at, column.length));
    at += column.length * 8;
  }
  return { head, columns };
}

/** A typed array as a plain one; several times as fast as Array.from. */
export function plainNumbers(values: Float64Array): number[] {
  const out = new Array<number>(values.length);
  for (let i = 0; i < values.length; i++) out[i] = values[i];
  return out;
}
