import type { Interval } from '../time/interval';
import type { WindowSpec } from '../time/window';

/* What is asked of one metric under Data, and what is answered. Lists are columns of equal length, oldest first. */

/** Days of one metric with the share of each that has usable data. */
export interface CoverageByDay {
  readonly zone: string;
  /** Local midnights, ms. */
  readonly day: readonly number[];
  /** 0 to 1. */
  readonly coverage: readonly number[];
  readonly samples: readonly number[];
}

export interface DegreeDaysAsk {
  readonly window: WindowSpec;
  /** In the unit of the temperature. */
  readonly base: number;
  readonly kind: 'heating' | 'cooling';
  readonly method: 'mean' | 'minMax';
}

/** Degree days by local day, in the unit of the temperature times days; null = too little data, or unfinished. */
export interface DegreeDays {
  readonly zone: string;
  /** Local midnights, ms. */
  readonly day: readonly number[];
  readonly degreeDays: readonly (number | null)[];
  readonly total: number | null;
  readonly missing: number;
}

/** Results of an expression over the last day; null = missing. */
export interface ExpressionPreview {
  /** The one that was chosen, else the one that was found. */
  readonly unit: string;
  readonly foundUnit: string;
  readonly zone: string;
  readonly window: Interval;
  /** ms. */
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
  readonly value: number | null;
  /** null = worked out sample by sample. */
  readonly coverage: number | null;
}
