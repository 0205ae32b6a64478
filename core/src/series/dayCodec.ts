import { DAY_MS } from '../time/lengths';
import { ByteReader, ByteWriter, zigzag } from './bytes';
import type { QualifiedSeries, Series } from './series';

/**
 * One UTC day of one metric, packed for the table `sample_day`.
 *
 * `times`: the first byte is the layout (1); then the first time as ms since the day began, then pairs (step
 * in ms, how often it repeats). `values`: the first byte is the layout: 1 + d = scaled decimals with d ∈ 0…9
 * digits, as differences; 64 = float64 with equal-ranked bytes side by side. All whole numbers are LEB128.
 */
export interface PackedDay {
  readonly n: number;
  readonly times: Uint8Array;
  readonly values: Uint8Array;
  /** Quality as (run length, code) pairs; null if every sample is good. */
  readonly flags: Uint8Array | null;
}

const TIMES_STEP_RUN = 1;
const VALUES_DECIMAL = 1;
const VALUES_FLOAT64 = 64;
const MAX_DIGITS = 9;
/** Differences of two numbers below this stay inside 2^52, where zigzag is exact. */
const SCALED_LIMIT = 2 ** 51;

/**
 * Start of the UTC day that holds `t`, in ms.
 * @example dayOf(Date.UTC(2026, 10, 19, 6, 40)) // => Date.UTC(2026, 10, 19)
 */
export function dayOf(t: number): number {
  return Math.floor(t / DAY_MS) * DAY_MS;
}

/**
 * Packs the samples of one UTC day without losing a bit.
 *
 * @param series samples of one day, times whole ms, strictly increasing.
 * @param dayStart start of that day, ms since the Unix epoch.
 * @throws {RangeError} if a time is not a whole ms, not increasing, or lies in another day.
 */
export function packDay(series: Series & { readonly q?: Uint8Array | null }, dayStart: number): PackedDay {
  return {
    n: series.t.length,
    times: packTimes(series.t, dayStart),
    values: packValues(series.v),
    flags: packFlags(series.q ?? null),
  };
}

/** Undoes {@link packDay}. @throws {RangeError} if the bytes are not what packDay wrote. */
export function unpackDay(day: PackedDay, dayStart: number): QualifiedSeries {
  return {
    t: unpackTimes(day.times, day.n, dayStart),
    v: unpackValues(day.values, day.n),
    q: day.flags && unpackFlags(day.flags, day.n),
  };
}

function packFlags(q: Uint8Array | null): Uint8Array | null {
  if (q === null || q.every((each) => each === 0)) return null;
  const out = new ByteWriter();
  for (let i = 0; i < q.length;) {
    let run = 1;
    while (i + run < q.length && q[i + run] === q[i]) run++;
    out.varint(run);
    out.byte(q[i]);
    i += run;
  }
  return out.done();
}

function unpackFlags(bytes: Uint8Array, n: number): Uint8Array {
  const q = new Uint8Array(n);
  const read = new ByteReader(bytes);
  for (let i = 0; i < n;) {
    const run = read.varint();
    if (run < 1 || i + run > n) throw new RangeError(`unpackDay: a run of ${run} flags does not fit`);
    q.fill(read.byte(), i, i + run);
    i += run;
  }
  return q;
}

function packTimes(t: Float64Array, dayStart: number): Uint8Array {
  const out = new ByteWriter();
  out.byte(TIMES_STEP_RUN);
  if (t.length === 0) return out.done();
  checkTimes(t, dayStart, -Infinity);
  out.varint(t[0] - dayStart);
  writeRuns(out, t.subarray(1), t[0], 0, 0);
  return out.done();
}

/** @throws {RangeError} for times that are not whole ms of the day, each later than the one before. */
function checkTimes(t: Float64Array, dayStart: number, after: number): void {
  let before = after;
  for (let i = 0; i < t.length; i++) {
    const inDay = t[i] - dayStart;
    if (!Number.isInteger(t[i]) || inDay < 0 || inDay >= DAY_MS || t[i] <= before) {
      throw new RangeError(
        `packDay: times must be whole ms inside the day and increasing, got ${t[i]} at ${i}`,
      );
    }
    before = t[i];
  }
}

/**
 * Writes times as (step, run length) pairs. @param last the time before them. @param step of the pair begun,
 * @param run times so far.
 */
function writeRuns(out: ByteWriter, t: Float64Array, last: number, step: number, run: number): void {
  let before = last;
  for (let i = 0; i < t.length; i++) {
    const next = t[i] - before;
    before = t[i];
    if (next === step) {
      run++;
      continue;
    }
    if (run > 0) {
      out.varint(step);
      out.varint(run);
    }
    step = next;
    run = 1;
  }
  if (run > 0) {
    out.varint(step);
    out.varint(run);
  }
}

function unpackTimes(bytes: Uint8Array, n: number, dayStart: number): Float64Array {
  const t = new Float64Array(n);
  const read = new ByteReader(bytes);
  const layout = read.byte();
  if (layout !== TIMES_STEP_RUN) throw new RangeError(`unpackDay: unknown layout of times ${layout}`);
  if (n === 0) return t;
  let at = dayStart + read.varint();
  t[0] = at;
  for (let i = 1; i < n;) {
    const step = read.varint();
    const run = read.varint();
    if (run < 1 || i + run > n) throw new RangeError(`unpackDay: a run of ${run} times does not fit`);
    for (let k = 0; k < run; k++) {
      at += step;
      t[i++] = at;
    }
  }
  return t;
}

/** The bytes to append to a packed day for later samples. */
export interface DayTail {
  readonly n: number;
  readonly times: Uint8Array;
  /** To append to the bytes of the stored values. */
  readonly valuesTail: Uint8Array;
}

/**
 * Appends later samples to a packed day without repacking it, with the same bytes as {@link packDay} of all
 * samples. The usual case of live data.
 *
 * @param last the value of the day's last sample. @param fresh good samples later than it, of the same day.
 * @returns null if the day has to be repacked: float64, more decimals, bad samples, or an empty day.
 */
export function appendToDay(
  day: PackedDay,
  last: { readonly t: number; readonly v: number },
  fresh: QualifiedSeries,
  dayStart: number,
): DayTail | null {
  const digits = day.values[0] - VALUES_DECIMAL;
  if (day.n === 0 || day.flags || fresh.q || digits < 0 || digits > MAX_DIGITS) return null;
  const scale = POWERS[digits];
  const out = new ByteWriter(fresh.v.length * 2 + 16);
  let before = Math.round(last.v * scale);
  for (let i = 0; i < fresh.v.length; i++) {
    if (!isExactAt(fresh.v[i], scale)) return null;
    const scaled = Math.round(fresh.v[i] * scale);
    out.varint(zigzag(scaled - before));
    before = scaled;
  }
  checkTimes(fresh.t, dayStart, last.t);
  return {
    n: day.n + fresh.t.length,
    times: appendTimes(day.times, last.t, fresh.t),
    valuesTail: out.done(),
  };
}

/** Continues the last (step, run length) pair of packed times. */
function appendTimes(times: Uint8Array, last: number, t: Float64Array): Uint8Array {
  const read = new ByteReader(times);
  read.byte();
  read.varint();
  let cut = read.position;
  let step = 0;
  let run = 0;
  while (!read.ended) {
    cut = read.position;
    step = read.varint();
    run = read.varint();
  }
  const out = new ByteWriter(times.length + 16);
  out.raw(times.subarray(0, cut));
  writeRuns(out, t, last, step, run);
  return out.done();
}

/** Packs numbers losslessly: as scaled decimals if that is exact, otherwise as float64. */
export function packValues(v: Float64Array): Uint8Array {
  const out = new ByteWriter(v.length * 2 + 16);
  writeValues(out, v);
  return out.done();
}

/** Appends what {@link packValues} produces. */
export function writeValues(out: ByteWriter, v: Float64Array): void {
  const digits = sharedDigits(v);
  if (digits === null) {
    out.byte(VALUES_FLOAT64);
    out.raw(shuffled(v));
    return;
  }
  out.byte(VALUES_DECIMAL + digits);
  const scale = POWERS[digits];
  let before = 0;
  for (let i = 0; i < v.length; i++) {
    const scaled = Math.round(v[i] * scale);
    out.varint(zigzag(scaled - before));
    before = scaled;
  }
}

/** Undoes {@link packValues}. @throws {RangeError} for bytes it did not write. */
export function unpackValues(bytes: Uint8Array, n: number): Float64Array {
  const read = new ByteReader(bytes);
  const layout = read.byte();
  if (layout === VALUES_FLOAT64) return unshuffled(read.rest(), n);
  const digits = layout - VALUES_DECIMAL;
  if (digits < 0 || digits > MAX_DIGITS) {
    throw new RangeError(`unpackDay: unknown layout of values ${layout}`);
  }
  const v = new Float64Array(n);
  read.runningTotals(v);
  if (digits > 0) {
    const scale = POWERS[digits];
    for (let i = 0; i < n; i++) v[i] /= scale;
  }
  return v;
}

const POWERS = Array.from({ length: MAX_DIGITS + 1 }, (_, digits) => 10 ** digits);

/** Fewest decimals that reproduce every value exactly; null if there are none (NaN, −0, too long). */
export function sharedDigits(v: Float64Array): number | null {
  let digits = 0;
  let scale = 1;
  let proven = 0;
  for (let i = 0; i < v.length; i++) {
    while (!isExactAt(v[i], scale)) {
      digits++;
      if (digits > MAX_DIGITS) return null;
      scale = POWERS[digits];
      proven = i;
    }
  }
  // A value exact at fewer digits may not be exact at more, so the earlier values are checked again.
  for (let i = 0; i < proven; i++) if (!isExactAt(v[i], scale)) return null;
  return digits;
}

function isExactAt(value: number, scale: number): boolean {
  const scaled = Math.round(value * scale);
  // −0 would come back as 0, because integers have no signed zero.
  return (
    scaled / scale === value &&
    scaled < SCALED_LIMIT &&
    scaled > -SCALED_LIMIT &&
    (value !== 0 || 1 / value > 0)
  );
}

function shuffled(v: Float64Array): Uint8Array {
  const n = v.length;
  const bytes = new Uint8Array(v.buffer, v.byteOffset, n * 8);
  const out = new Uint8Array(n * 8);
  for (let rank = 0; rank < 8; rank++) {
    const from = LITTLE_ENDIAN ? rank : 7 - rank;
    for (let i = 0; i < n; i++) out[rank * n + i] = bytes[i * 8 + from];
  }
  return out;
}

/** Nearly every processor is little-endian; the packed form is the same on all. */
const LITTLE_ENDIAN = new Uint8Array(new Uint16Array([1]).buffer)[0] === 1;

function unshuffled(bytes: Uint8Array, n: number): Float64Array {
  if (bytes.length !== n * 8) {
    throw new RangeError(`unpackDay: ${n} values need ${n * 8} bytes, got ${bytes.length}`);
  }
  const v = new Float64Array(n);
  const into = new Uint8Array(v.buffer);
  for (let rank = 0; rank < 8; rank++) {
    const to = LITTLE_ENDIAN ? rank : 7 - rank;
    for (let i = 0; i < n; i++) into[i * 8 + to] = bytes[rank * n + i];
  }
  return v;
}
