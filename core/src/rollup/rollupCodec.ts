import { ByteReader, ByteWriter } from '../series/bytes';
import { packValues, unpackValues } from '../series/dayCodec';
import { emptyTallies, type Tallies } from '../summary/tally';

const LAYOUT = 1;

/** Columns kept where samples lie (n > 0), where something holds, and where a register's increase is known. */
const OF_SAMPLES = ['sum', 'min', 'max', 'first', 'last', 'm2'] as const;
const ALWAYS = ['n', 'heldMs', 'area', 'increase', 'spanMs'] as const;
export const ROLLUP_COLUMNS = [...ALWAYS, ...OF_SAMPLES] as const;
export type RollupColumn = (typeof ROLLUP_COLUMNS)[number];
const STATE = 64;

/**
 * Packs the tallies of one day, as they lie in `rollup_day`: layout byte, then columns of
 * (number of the column, length in bytes, values). Columns that are zero throughout are left out; minima and
 * the like are kept only for quarters with samples.
 */
export function packRollup(tallies: Tallies): Uint8Array {
  const out = new ByteWriter();
  out.byte(LAYOUT);
  out.varint(tallies.size);
  const column = (id: number, values: Float64Array): void => {
    const bytes = packValues(values);
    out.varint(id);
    out.varint(bytes.length);
    out.raw(bytes);
  };
  ALWAYS.forEach((name, id) => {
    if (tallies[name].some((each) => each !== 0)) column(id, tallies[name]);
  });
  const filled = indexesWithSamples(tallies.n);
  if (filled.length > 0) {
    OF_SAMPLES.forEach((name, i) =>
      column(
        ALWAYS.length + i,
        Float64Array.from(filled, (at) => tallies[name][at]),
      ),
    );
  }
  for (const [code, values] of [...tallies.stateMs].sort(([a], [b]) => a - b)) {
    if (!values.some((each) => each !== 0)) continue;
    column(STATE, values);
    out.raw(codeBytes(code));
  }
  return out.done();
}

/**
 * Undoes {@link packRollup}.
 *
 * @param wanted only these columns are read (`n` always is); default all.
 * @throws {RangeError} for bytes it did not write.
 */
export function unpackRollup(bytes: Uint8Array, wanted: ReadonlySet<RollupColumn> | null = null): Tallies {
  const read = new ByteReader(bytes);
  const layout = read.byte();
  if (layout !== LAYOUT) throw new RangeError(`unpackRollup: unknown layout ${layout}`);
  const size = read.varint();
  if (size > 1000) throw new RangeError(`unpackRollup: ${size} buckets are too many`);
  const out = emptyTallies(size);
  let filled: number[] = [];
  while (!read.ended) {
    const id = read.varint();
    const packed = read.take(read.varint());
    if (id === STATE) {
      const code = new DataView(read.take(8).slice().buffer).getFloat64(0, true);
      out.stateMs.set(code, unpackValues(packed, size));
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
      filled.forEach((at, i) => {
        out[name][at] = values[i];
      });
    }
  }
  return out;
}

function indexesWithSamples(n: Float64Array): number[] {
  const filled: number[] = [];
  for (let i = 0; i < n.length; i++) if (n[i] > 0) filled.push(i);
  return filled;
}

function codeBytes(code: number): Uint8Array {
  const bytes = new Uint8Array(8);
  new DataView(bytes.buffer).setFloat64(0, code, true);
  return bytes;
}
