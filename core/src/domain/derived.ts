import type { Summary } from './metric';

/** What a name in an expression stands for. */
export type Binding =
  /** A metric; in totals, summarised so over each period (null = the usual summary of its kind). */
  | { readonly kind: 'metric'; readonly metricId: string; readonly summary: Summary | null }
  /** The metric of this name of all assets directly below an asset, added up. */
  | {
      readonly kind: 'children';
      readonly assetId: string;
      readonly metricName: string;
      readonly summary: Summary | null;
    }
  /** A number among an asset's attributes, such as its floor area. */
  | { readonly kind: 'attribute'; readonly assetId: string; readonly attribute: string }
  /** An equivalence factor; its value of the year of each step. */
  | { readonly kind: 'factor'; readonly factorId: string };

/**
 * Two ways to evaluate:
 * - `totals`: every name is summarised over the period first, then the expression is worked out once:
 *   sum over sum, right for ratios at any length of period.
 * - `samples`: the expression is worked out at each sample, and the results are summarised like any metric:
 *   right for limits, differences and conversions of a moment.
 */
export type DerivedWay = 'totals' | 'samples';

export interface DerivedDefinition {
  readonly expression: string;
  readonly bindings: Readonly<Record<string, Binding>>;
  readonly way: DerivedWay;
}
