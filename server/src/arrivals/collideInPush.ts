import type { CollisionRule } from '@vivid-beacon/core/src/intakeFiles';

/** Samples of one metric in a push, each with its position. */
export interface PushColumns {
  readonly t: number[];
  readonly v: number[];
  readonly q: number[];
  readonly index: number[];
}

export interface CollisionInPush {
  readonly index: number;
  readonly first: number;
  readonly before: number;
  readonly value: number;
  readonly t: number;
}

/**
 * Combines samples of one metric that stand at one time. Equal ones are repeats; different ones are told, and the rule
 * says what holds.
 *
 * @returns columns in which each time stands once, in the order the times first came.
 */
export function combine(
  columns: PushColumns,
  rule: CollisionRule,
): { readonly columns: Omit<PushColumns, 'index'>; readonly met: readonly CollisionInPush[] } {
  if (increases(columns.t)) return { columns, met: [] };
  const place = new Map<number, number>();
  const out = { t: [] as number[], v: [] as number[], q: [] as number[] };
  const firsts: number[] = [];
  const counts: number[] = [];
  const met: CollisionInPush[] = [];
  columns.t.forEach((t, i) => {
    const [v, q] = [columns.v[i], columns.q[i]];
    const at = place.get(t);
    if (at === undefined) {
      place.set(t, out.t.length);
      out.t.push(t);
      out.v.push(v);
      out.q.push(q);
      firsts.push(columns.index[i]);
      counts.push(1);
      return;
    }
    if (Object.is(out.v[at], v) && out.q[at] === q && rule !== 'sum') return;
    if (!Object.is(out.v[at], v))
      met.push({ index: columns.index[i], first: firsts[at], before: out.v[at], value: v, t });
    if (rule === 'last') {
      out.v[at] = v;
      out.q[at] = q;
      firsts[at] = columns.index[i];
    } else if (rule === 'sum') out.v[at] += v;
    else if (rule === 'mean') out.v[at] += (v - out.v[at]) / ++counts[at];
  });
  return { columns: out, met };
}

function increases(t: readonly number[]): boolean {
  for (let i = 1; i < t.length; i++) if (t[i] <= t[i - 1]) return false;
  return true;
}
