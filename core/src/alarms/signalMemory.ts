import type { OpenPoint } from './chartPoints';

/** What a signal carries from one batch of samples to the next; plain data. */
export type SignalMemory =
  | {
      readonly kind: 'consumption';
      readonly start: number;
      readonly total: number;
      readonly last: number | null;
    }
  | { readonly kind: 'chart'; readonly open: OpenPoint | null; readonly z: readonly number[] };
