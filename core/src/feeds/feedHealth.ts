import { HOUR_MS, DAY_MS } from '../time/lengths';
import type { MetricKind } from '../domain/metric';
import { amountOrNull, oneOf, shape, type TypeOf } from '../schemas/shape';
import { QUALITY } from '../series/quality';

export const FEED_STATES = ['reporting', 'silent', 'never', 'flat', 'outOfRange', 'clockAhead'] as const;
export type FeedState = (typeof FEED_STATES)[number];

export const FEED_WORDS: Readonly<Record<FeedState, string>> = {
  reporting: 'Reports',
  silent: 'Silent',
  never: 'Nothing yet',
  flat: 'Flat-lined',
  outOfRange: 'Out of range',
  clockAhead: 'Clock ahead',
};

/** Health of a feed. Times in ms. */
export const feedHealthSchema = shape({
  state: oneOf(FEED_STATES),
  /** Time since the newest sample; null if there is none. */
  quietMs: amountOrNull(),
  /** Delay of the newest sample; null if unknown. */
  lagMs: amountOrNull(),
  /** Time without a change of the value, up to its newest sample. */
  flatMs: amountOrNull(),
});
export type FeedHealth = TypeOf<typeof feedHealthSchema>;

/** Facts about a feed. Durations in ms. */
export interface FeedFacts {
  readonly kind: MetricKind;
  readonly intervalMs: number;
  readonly maxGapMs: number;
  readonly last: { readonly t: number; readonly quality: number } | null;
  readonly receivedAt?: number | null;
  readonly flatSince?: number | null;
  /** How far the sender's clock was ahead, and when that was last seen. */
  readonly aheadMs?: number;
  readonly aheadAt?: number | null;
}

/**
 * A level with the same value this many times in a row counts as a stuck sensor. Common practice, no source.
 */
const FLAT_INTERVALS = 60;
/** A clock further ahead than this is reported. */
export const CLOCK_TOLERANCE_MS = 60_000;

/**
 * The state of a feed; the most specific one wins. Silent: nothing has come for the longest allowed gap, at
 * least three logging intervals. Clock ahead: seen within the last day. Out of range: the newest value lies
 * outside the plausible range. Flat-lined: a level unchanged for 60 intervals and at least two hours.
 */
export function feedHealth(facts: FeedFacts, now: number): FeedHealth {
  const { last, intervalMs, maxGapMs } = facts;
  if (last === null) return { state: 'never', quietMs: null, lagMs: null, flatMs: null };
  const quietMs = Math.max(0, now - last.t);
  // An amount is complete only when its interval is over.
  const known = last.t + (facts.kind === 'amount' ? intervalMs : 0);
  const lagMs = facts.receivedAt == null ? null : Math.max(0, facts.receivedAt - known);
  const flatMs = facts.flatSince == null ? null : Math.max(0, last.t - facts.flatSince);
  const ahead =
    (facts.aheadMs ?? 0) > CLOCK_TOLERANCE_MS && facts.aheadAt != null && now - facts.aheadAt < DAY_MS;
  const flat =
    facts.kind === 'level' && flatMs !== null && flatMs >= Math.max(FLAT_INTERVALS * intervalMs, 2 * HOUR_MS);
  const state: FeedState =
    quietMs > Math.max(maxGapMs, 3 * intervalMs)
      ? 'silent'
      : ahead
        ? 'clockAhead'
        : last.quality === QUALITY.implausible
          ? 'outOfRange'
          : flat
            ? 'flat'
            : 'reporting';
  return { state, quietMs, lagMs, flatMs };
}
