import type { Bucket } from '../time/buckets';
import type { HoursFilter } from '../time/hours';
import type { Interval } from '../time/interval';
import type { WindowSpec } from '../time/window';
import type { Level, TargetBand } from '../bands/targetBand';
import type { Summary } from './metric';
import type { Provenance } from './provenance';

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

/** One number of a question: metrics summarised together, or divided by others (sum over sum inside each group). */
export interface QueryMeasure {
  readonly select: Selection;
  readonly summary: Summary;
  readonly per: {
    readonly select: Selection;
    readonly summary: Summary;
    /** What the ratio is multiplied by; 100 for percent. */
    readonly factor: number;
  } | null;
  /** What its values are judged by; without one the answer has no levels. */
  readonly band?: TargetBand | null;
}

/** One question to the planner; every readout asks in this form. A single metric is a group of one. */
export interface Query {
  readonly measures: readonly QueryMeasure[];
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

/** The answer: for each group and measure one value a period. */
export interface QueryAnswer {
  /** Window, zone and periods of the first metric's site; periods of other sites lie at their own local times. */
  readonly window: Interval;
  readonly zone: string;
  readonly now: number;
  /** One a measure. */
  readonly units: readonly string[];
  /** Bounds of the periods, ms; `names` of shifts. */
  readonly start: readonly number[];
  readonly end: readonly number[];
  readonly names: readonly string[] | null;
  readonly groups: readonly QueryGroup[];
}

export interface QueryGroup {
  /** What the group is called; "" for assets without the attribute. */
  readonly name: string;
  /** The one asset it stands for: of plants the plant; null where it is several. */
  readonly assetId: string | null;
  /** One a measure, in the order they were asked. */
  readonly measures: readonly MeasureValues[];
}

/** One measure of one group. */
export interface MeasureValues {
  readonly metricIds: readonly string[];
  /** Those they are divided by; empty without. */
  readonly perMetricIds: readonly string[];
  /** Metrics of the same name below those: they are part of them, and not counted again. */
  readonly withinIds: readonly string[];
  /** One a period; null without data. */
  readonly values: readonly (number | null)[];
  /** One a period, 0 to 1. */
  readonly coverage: readonly number[];
  readonly samples: readonly number[];
  /** One a period, where the measure has a band; else null. */
  readonly levels: readonly Level[] | null;
  /** Whether the end of its window still lies ahead. */
  readonly partial: boolean;
  /** Newest sample that counted, ms; of several metrics of the one that is furthest behind. Null without data, and of periods. */
  readonly asOf: number | null;
  /** The same over the window it is compared with; null where that was not asked for or has too little data. */
  readonly previous: number | null;
  /** How the value was made, where that was asked for. */
  readonly provenance: Provenance | null;
}
