import type { TrendAnswer } from '../api/readings';
import { plainNumbers, decodeColumns, encodeColumns } from './columns';

type Head = Omit<TrendAnswer, 't' | 'v' | 'until'>;

/** A trend's answer as bytes: columns `t`, `v` (NaN where a gap opens) and, by period, `until`. */
export function encodeTrend({ t, v, until, ...head }: TrendAnswer): Uint8Array<ArrayBuffer> {
  const values = new Float64Array(v.length);
  for (let i = 0; i < v.length; i++) values[i] = v[i] ?? NaN;
  return encodeColumns<Head>(head, [
    ['t', t],
    ['v', values],
    ['until', until ?? []],
  ]);
}

/** Undoes {@link encodeTrend}. @throws {RangeError} when cut short. */
export function decodeTrend(buffer: ArrayBuffer): TrendAnswer {
  const { head, columns } = decodeColumns<Head>(buffer);
  const { window, zone, unit, now, gaps, thin, samples, bucket } = head;
  const values = columns.get('v')!;
  const v = new Array<number | null>(values.length);
  for (let i = 0; i < values.length; i++) v[i] = values[i] === values[i] ? values[i] : null;
  return {
    window,
    zone,
    unit,
    now,
    bucket,
    gaps,
    ...(thin && { thin }),
    samples,
    t: plainNumbers(columns.get('t')!),
    v,
    until: bucket !== null ? plainNumbers(columns.get('until')!) : null,
  };
}
