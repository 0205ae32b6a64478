import type { TrendAnswer } from '../api/readings';
import { plainNumbers, readColumns, writeColumns } from './columns';

type Head = Omit<TrendAnswer, 't' | 'v' | 'until'> & { readonly bucketed: boolean };

/** A trend's answer as bytes: columns `t`, `v` (NaN where a gap opens) and, by period, `until`. */
export function writeTrend({ t, v, until, ...head }: TrendAnswer): Uint8Array<ArrayBuffer> {
  const values = new Float64Array(v.length);
  for (let i = 0; i < v.length; i++) values[i] = v[i] ?? NaN;
  return writeColumns<Head>({ ...head, bucketed: until !== null }, [
    ['t', t],
    ['v', values],
    ['until', until ?? []],
  ]);
}

/** Undoes {@link writeTrend}. @throws {RangeError} when cut short. */
export function readTrend(buffer: ArrayBuffer): TrendAnswer {
  const { head, columns } = readColumns<Head>(buffer);
  const { window, zone, unit, now, gaps, samples, bucketed } = head;
  const values = columns.get('v')!;
  const v = new Array<number | null>(values.length);
  for (let i = 0; i < values.length; i++) v[i] = values[i] === values[i] ? values[i] : null;
  return {
    window,
    zone,
    unit,
    now,
    gaps,
    samples,
    t: plainNumbers(columns.get('t')!),
    v,
    until: bucketed ? plainNumbers(columns.get('until')!) : null,
  };
}
