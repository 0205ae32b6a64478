import type { CollisionRule } from './layout';

/** Most values compared with each other, at 56 bytes each. */
export const MAX_COMPARED = 6_000_000;

/** The earlier value of the same series and time. */
export interface Collision {
  readonly kind: 'new' | 'repeated' | 'differs';
  readonly line: number;
  readonly value: number;
}

/**
 * Finds values of one series that collide at one time.
 *
 * - `watch` keeps no values: it only checks whether the times of every series are monotonic, so that none can
 * collide.
 * - `compare` keeps every value and combines colliding ones by a rule.
 */
export interface Collisions {
  readonly meet: (series: number, t: number, value: number, line: number) => Collision;
  /** Values are kept and compared. */
  readonly keepsValues: boolean;
  /** False once the times of a series were not strictly monotonic. */
  readonly inOrder: boolean;
  /** Whether there were more values than are compared; later collisions are not found. */
  readonly overflowed: boolean;
  /** Every series, time and combined value, in the order they first came. */
  readonly each: (take: (series: number, t: number, value: number) => void) => void;
}

const NEW: Collision = { kind: 'new', line: 0, value: 0 };

export function watchOrder(): Collisions {
  const last: number[] = [];
  const direction: number[] = [];
  let inOrder = true;
  return {
    meet(series, t) {
      const before = last[series];
      if (before !== undefined) {
        const step = Math.sign(t - before);
        if (step === 0 || (direction[series] !== undefined && step !== direction[series])) inOrder = false;
        else direction[series] = step;
      }
      last[series] = t;
      return NEW;
    },
    get inOrder() {
      return inOrder;
    },
    overflowed: false,
    keepsValues: false,
    each: () => undefined,
  };
}

/**
 * @param rule how colliding values are combined; null keeps the first.
 * @param most values that are kept.
 */
export function compareValues(rule: CollisionRule | null, most = MAX_COMPARED): Collisions {
  let size = 1024;
  let used = 0;
  let overflowed = false;
  let times = new Float64Array(size);
  let values = new Float64Array(size);
  let lines = new Float64Array(size);
  let serieses = new Int32Array(size);
  let counts = new Float64Array(size);
  /** Place + 1 by hash; 0 = free. Twice to four times as long as the columns. */
  let table = new Int32Array(size * 4);

  const hash = (series: number, t: number): number => {
    const low = t % 4_294_967_296;
    let h = Math.imul((low | 0) ^ Math.imul(series + 1, 0x9e3779b1), 0x85ebca6b);
    h ^= Math.imul(Math.floor(t / 4_294_967_296) | 0, 0xc2b2ae35);
    h ^= h >>> 15;
    return Math.imul(h, 0x2c1b3c6d) >>> 0;
  };
  const find = (series: number, t: number): number => {
    const mask = table.length - 1;
    let at = hash(series, t) & mask;
    for (;;) {
      const place = table[at] - 1;
      if (place < 0) return -at - 1;
      if (times[place] === t && serieses[place] === series) return place;
      at = (at + 1) & mask;
    }
  };
  const grow = (): void => {
    size *= 2;
    const longer = (old: Float64Array): Float64Array<ArrayBuffer> => {
      const next = new Float64Array(size);
      next.set(old);
      return next;
    };
    times = longer(times);
    values = longer(values);
    lines = longer(lines);
    counts = longer(counts);
    const next = new Int32Array(size);
    next.set(serieses);
    serieses = next;
    table = new Int32Array(size * 4);
    for (let i = 0; i < used; i++) table[-find(serieses[i], times[i]) - 1] = i + 1;
  };
  const watch = watchOrder();
  return {
    meet(series, t, value, line) {
      watch.meet(series, t, value, line);
      const place = find(series, t);
      if (place < 0) {
        if (used >= most) {
          overflowed = true;
          return NEW;
        }
        if (used === size) {
          grow();
          table[-find(series, t) - 1] = used + 1;
        } else table[-place - 1] = used + 1;
        times[used] = t;
        values[used] = value;
        lines[used] = line;
        serieses[used] = series;
        counts[used++] = 1;
        return NEW;
      }
      const before = { line: lines[place], value: values[place] };
      const adds = rule === 'sum' || rule === 'mean';
      // Where values are added up, equal ones are added too: two deliveries of 5 kg are 10 kg.
      if (!adds && before.value === value) return { kind: 'repeated', ...before };
      if (rule === 'last') {
        values[place] = value;
        lines[place] = line;
      } else if (rule === 'sum') values[place] += value;
      else if (rule === 'mean') values[place] += (value - before.value) / ++counts[place];
      return { kind: 'differs', ...before };
    },
    keepsValues: true,
    get inOrder() {
      return watch.inOrder;
    },
    get overflowed() {
      return overflowed;
    },
    each(take) {
      for (let i = 0; i < used; i++) take(serieses[i], times[i], values[i]);
    },
  };
}
