import type { DisplayScale, Measure } from '../board/board';
import type { Direction, OwnCuts, TargetBand } from '../bands/targetBand';
import type { ReferencePeriod } from '../domain/reference';
import type { HoursFilter } from '../time/hours';
import type { WindowSpec } from '../time/window';

/**
 * How an indicator's value becomes a level.
 * - `limits`: thresholds in the unit of the measure (two levels where they are equal, three, or inside a band).
 * - `target`: shares of the target that must be reached, in percent: from `clear` on Clear, from `caution` on Caution.
 *   Equal shares leave two levels; 100 and 100 are a single target.
 * - `targetCuts`: own cuts in percent of the target, each part with a level of its choice.
 */
export type Judge =
  | { readonly kind: 'limits'; readonly band: TargetBand }
  | {
      readonly kind: 'target';
      readonly direction: Direction;
      readonly clear: number;
      readonly caution: number;
    }
  | (OwnCuts & { readonly kind: 'targetCuts' });

/** Whether a judge can say nothing without a target. */
export const needsTarget = ({ kind }: Pick<Judge, 'kind'>): boolean => kind !== 'limits';

/** How much of a period's target a part of the period is to reach. */
export const PRORATIONS = ['calendar', 'working', 'none'] as const;
export type Proration = (typeof PRORATIONS)[number];

/** Where the target of an indicator comes from. Values in the unit of the measure. */
export type TargetSource =
  | { readonly kind: 'none' }
  /** For the whole window; of an unfinished one as much as has passed, where it is prorated and adds up. */
  | { readonly kind: 'fixed'; readonly value: number; readonly prorate?: Proration }
  /** Typed in by period, also ahead; a total is prorated, a mean or a ratio holds as it is. */
  | { readonly kind: 'periods'; readonly period: ReferencePeriod; readonly prorate: Proration }
  /** Another measure over the same window, times a factor. */
  | { readonly kind: 'measure'; readonly measure: Measure; readonly factor: number }
  /** The same measure over the same window last year, more or less by a percentage. */
  | { readonly kind: 'lastYear'; readonly percent: number }
  /** What is usual at these hours of the week, from so many weeks before, more or less by a percentage. */
  | { readonly kind: 'baseline'; readonly weeks: number; readonly percent: number };

/** What the value is compared with. */
export type ReferenceSource =
  | { readonly kind: 'none' }
  | { readonly kind: 'fixed'; readonly value: number }
  | { readonly kind: 'before' }
  | { readonly kind: 'lastYear' }
  /** What is usual at these hours of the week, from so many weeks before. */
  | { readonly kind: 'baseline'; readonly weeks: number }
  /** Another measure over the same window, such as a budget series. */
  | { readonly kind: 'measure'; readonly measure: Measure };

/** An indicator as it is governed: defined once, used everywhere. */
export interface IndicatorDefinition {
  readonly name: string;
  readonly description: string;
  readonly assetId: string;
  /** Who answers for it; null = nobody named. */
  readonly ownerId: string | null;
  readonly measure: Measure;
  readonly window: WindowSpec;
  readonly hours: HoursFilter | null;
  readonly judge: Judge;
  readonly target: TargetSource;
  readonly reference: ReferenceSource;
  readonly decimals: number;
  readonly display: DisplayScale;
  /** Board that shows it in its context; null = none. */
  readonly boardId: string | null;
}

/** One definition of an indicator, in force from a moment until the next one is. */
export interface IndicatorVersion {
  readonly version: number;
  readonly validFrom: number;
  readonly by: string;
  readonly definition: IndicatorDefinition;
}

/** A target typed in for a period; `start` is the local first day of the period, "2026-11-01". */
export interface PeriodTarget {
  readonly start: string;
  readonly value: number;
}

/** The definition that was in force at a moment: the newest that had begun, else the first of all. */
export function versionAt(versions: readonly IndicatorVersion[], t: number): IndicatorVersion {
  const begun = versions.filter(({ validFrom }) => validFrom <= t);
  const newest = (of: readonly IndicatorVersion[]): IndicatorVersion =>
    of.reduce((a, b) => (b.version > a.version ? b : a));
  return begun.length > 0 ? newest(begun) : versions.reduce((a, b) => (b.version < a.version ? b : a));
}
