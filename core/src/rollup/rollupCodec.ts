import { ByteReader, ByteWriter } from '../series/bytes';
import { unpackValues, writeValues } from '../series/dayCodec';
import { emptyAggregates, type Aggregates } from '../summary/aggregates';

const LAYOUT = 1;

/**
 * Columns stored where there are samples (n > 0), where a value holds, and where a register's increase is
 * known.
 */
const OF_SAMPLES = ['sum', 'min', 'max', 'first', 'last', 'm2'] as const;
const ALWAYS = ['n', 'heldMs', 'area', 'increase', 'spanMs'] as const;
export const ROLLUP_COLUMNS = [...ALWAYS, ...OF_SAMPLES] as const;
export type RollupColumn = (typeof ROLLUP_COLUMNS)[number];
const STATE = 64;

/** Write buffer, reused for each rollup: a batch of samples packs hundreds. */
const OUT = new ByteWriter(4096);
const COLUMN = new ByteWriter(1024);

/**
 * Packs the aggregates of one day for `rollup_day`: layout byte, then columns of (column number, length in
 * bytes, values). All-zero columns are left out; minima and the like are stored only for quarters with
 * samples.
 */
export function packRollup(aggregates: Aggregates): Uint8Array {
  const out = OUT.clear();
  out.byte(LAYOUT);
  out.varint(aggregates.size);
  const column = (id: number, values: Float64Array): void => {
    writeValues(COLUMN.clear(), values);
    const bytes = COLUMN.done();
    out.varint(id);
    out.varint(bytes.length);
    out.raw(bytes);
  };
  ALWAYS.forEach((name, id) => {
    if (holdsAny(aggregates[name])) column(id, aggregates[name]);
  });
  const filled = indexesWithSamples(aggregates.n);
  if (filled.length > 0) {
    const picked = new Float64Array(filled.length);
    OF_SAMPLES.forEach((name, i) => {
      const all = aggregates[name];
      for (let k = 0; k < filled.length; k++) picked[k] = all[filled[k]];
      column(ALWAYS.length + i, picked);
    });
  }
  for (const [code, values] of [...aggregates.stateMs].sort(([a], [b]) => a - b)) {
    if (!holdsAny(values)) continue;
    column(STATE, values);
    out.raw(codeBytes(code));
  }
  return out.done().slice();
}

/**
 * Undoes {@link packRollup}.
 *
 * @param wanted only these columns are read (and `n`); default: all.
 * @throws {RangeError} for bytes it did not write.
 */
export function unpackRollup(bytes: Uint8Array, wanted: ReadonlySet<RollupColumn> | null = null): Aggregates {
  const read = new ByteReader(bytes);
  const layout = read.byte();
  if (layout !== LAYOUT) throw new RangeError(`unpackRollup: unknown layout ${layout}`);
  const size = read.varint();
  if (size > 1000) throw new RangeError(`unpackRollup: ${size} buckets are too many`);
  const out = wanted ? sparseAggregates(size, wanted) : emptyAggregates(size);
  let filled: number[] = [];
  while (!read.ended) {
    const id = read.varint();
    const packed = read.take(read.varint());
    if (id === STATE) {
      out.stateMs.set(codeOf(read.take(8)), unpackValues(packed, size));
      continue;
    }
    const name = ROLLUP_COLUMNS[id];
    if (name === undefined) throw new RangeError(`unpackRollup: unknown column ${id}`);
    if (name === 'n') {
      out.n.set(unpackValues(packed, size));
      filled = indexesWithSamples(out.n);
      continue;
    }
    if (wanted && !wanted.has(name)) continue;
    if (id < ALWAYS.length) out[name].set(unpackValues(packed, size));
    else {
      const values = unpackValues(packed, filled.length);
      const into = out[name];
      for (let k = 0; k < filled.length; k++) into[filled[k]] = values[k];
    }
  }
  return out;
}

/** Unwanted columns share one buffer that is never written. */
const SHARED = new Map<number, { readonly zeros: Float64Array; readonly unknown: Float64Array }>();

function sharedOf(size: number): { readonly zeros: Float64Array; readonly unknown: Float64Array } {
  let shared = SHARED.get(size);
  if (!shared) {
    shared = { zeros: new Float64Array(size), unknown: new Float64Array(size).fill(NaN) };
    SHARED.set(size, shared);
  }
  return shared;
}

function sparseAggregates(size: number, wanted: ReadonlySet<RollupColumn>): Aggregates {
  const { zeros, unknown } = sharedOf(size);
  const sum = (name: RollupColumn): Float64Array => (wanted.has(name) ? new Float64Array(size) : zeros);
  const end = (name: RollupColumn): Float64Array =>
    wanted.has(name) ? new Float64Array(size).fill(NaN) : unknown;
  return {
    size,
    n: new Float64Array(size),
    sum: sum('sum'),
    min: end('min'),
    max: end('max'),
    first: end('first'),
    last: end('last'),
    m2: sum('m2'),
    heldMs: sum('heldMs'),
    area: sum('area'),
    increase: sum('increase'),
    spanMs: sum('spanMs'),
    stateMs: new Map(),
  };
}

function holdsAny(values: Float64Array): boolean {
  for (let i = 0; i < values.length; i++) if (values[i] !== 0) return true;
  return false;
}

function indexesWithSamples(n: Float64Array): number[] {
  const filled: number[] = [];
  for (let i = 0; i < n.length; i++) if (n[i] > 0) filled.push(i);
  return filled;
}

/** The code in 8 bytes, which may lie anywhere in a larger buffer: drivers hand out parts of one. */
function codeOf({ buffer, byteOffset }: Uint8Array): number {
  return new DataView(buffer, byteOffset, 8).getFloat64(0, true);
}

function codeBytes(code: number): Uint8Array {
  const bytes = new Uint8Array(8);
  new DataView(bytes.buffer).setFloat64(0, code, true);
  return bytes;
}
