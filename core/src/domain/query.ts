import type { Bucket } from '../time/buckets';
import type { HoursFilter } from '../time/hours';
import type { Interval } from '../time/interval';
import type { WindowSpec } from '../time/window';
import type { Summary } from './metric';
import type { Provenance } from './wire';

/** By what metrics are put together: each on its own, or all of an asset, plant, kind of asset or attribute. */
export type GroupBy =
  | { readonly kind: 'metric' }
  | { readonly kind: 'asset' }
  | { readonly kind: 'plant' }
  | { readonly kind: 'assetKind' }
  | { readonly kind: 'attribute'; readonly name: string }
  | { readonly kind: 'all' };

/** An attribute that an asset must have, with one of these values. */
export interface AttributeCondition {
  readonly name: string;
  readonly values: readonly (string | number)[];
}

/** Which assets count: given ones with everything below them (null = all), of those with these attributes. */
export interface Scope {
  readonly assetIds: readonly string[] | null;
  readonly attributes: readonly AttributeCondition[];
}

/** Which metrics: by id, or by name on every asset of the scope. */
export type Selection = { readonly metricIds: readonly string[] } | { readonly metricName: string };

/** One question to the planner; every readout asks in this form. */
export interface Query {
  readonly select: Selection;
  readonly summary: Summary;
  /** Divided by another selection: sum over sum inside each group. */
  readonly per: { readonly select: Selection; readonly summary: Summary; readonly factor: number } | null;
  readonly window: WindowSpec;
  readonly bucket: Bucket | null;
  readonly groupBy: GroupBy;
  readonly scope: Scope;
  readonly hours: HoursFilter | null;
  /** What each value of the whole window is compared with; default "none". Not with periods. */
  readonly compare?: 'none' | 'before' | 'lastYear';
  /** Whether the answer says how each value of the whole window was made; default no. Not with periods. */
  readonly provenance?: boolean;
}

/** The answer: for each group one value a period. */
export interface QueryAnswer {
  readonly window: Interval;
  readonly zone: string;
  readonly now: number;
  readonly unit: string;
  /** Bounds of the periods, ms; `names` of shifts. */
  readonly start: readonly number[];
  readonly end: readonly number[];
  readonly names: readonly string[] | null;
  readonly groups: readonly QueryGroup[];
}

export interface QueryGroup {
  /** What the group is called; "" for assets without the attribute. */
  readonly name: string;
  readonly metricIds: readonly string[];
  /** Those they are divided by; empty without. */
  readonly perMetricIds: readonly string[];
  /** Metrics of the same name below those: they are part of them, and not counted again. */
  readonly withinIds: readonly string[];
  /** One a period; null without data. */
  readonly values: readonly (number | null)[];
  readonly coverage: readonly number[];
  readonly samples: readonly number[];
  /** The same over the window it is compared with; null where that was not asked for or has too little data. */
  readonly previous: number | null;
  /** How the value was made, where that was asked for. */
  readonly making: Making | null;
}

/** How a value was made. */
export interface Making {
  /** Newest sample that counted, ms; of several metrics of the one that is furthest behind. Null without data. */
  readonly asOf: number | null;
  readonly provenance: Provenance;
}
