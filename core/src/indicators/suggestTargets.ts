import { amount, amountOrNull, oneOf, shape, type TypeOf } from '../schemas/shape';
import type { Direction } from '../bands/targetBand';
import { quantile } from '../stats/stats';

/** A suggested target with its reason. */
export const targetSuggestion = shape({
  kind: oneOf(['median', 'quarter', 'bestSustained'] as const),
  value: amount(),
  /** Number of past values behind it. */
  values: amount(),
  /** For the best sustained stretch: its periods, ms; else null. */
  from: amountOrNull(),
  to: amountOrNull(),
});
export type TargetSuggestion = TypeOf<typeof targetSuggestion>;

/** Fewest past values for a suggestion. */
const FEWEST = 8;
/** How many periods in a row a level must have been held to count as sustained; common practice, no source. */
const SUSTAINED = 4;

/**
 * Suggests targets from past values: the median, the better quartile, and the best mean of four consecutive
 * periods. Nothing for an indicator that should stay inside a band.
 *
 * @param past one value per period, oldest first; null if missing.
 */
export function suggestTargets(
  past: readonly { readonly start: number; readonly end: number; readonly value: number | null }[],
  direction: Direction,
): TargetSuggestion[] {
  if (direction === 'inside') return [];
  const known = past.flatMap(({ value }) => (value === null ? [] : [value]));
  if (known.length < FEWEST) return [];
  const better = direction === 'higher' ? 0.75 : 0.25;
  const plain = { values: known.length, from: null, to: null };
  const suggestions: TargetSuggestion[] = [
    { kind: 'median', value: quantile(known, 0.5), ...plain },
    { kind: 'quarter', value: quantile(known, better), ...plain },
  ];
  const best = bestSustained(past, direction);
  if (best) suggestions.push(best);
  return suggestions;
}

function bestSustained(
  past: readonly { readonly start: number; readonly end: number; readonly value: number | null }[],
  direction: 'higher' | 'lower',
): TargetSuggestion | null {
  let best: TargetSuggestion | null = null;
  for (let i = SUSTAINED - 1; i < past.length; i++) {
    const row = past.slice(i - SUSTAINED + 1, i + 1);
    if (row.some(({ value }) => value === null)) continue;
    const mean = row.reduce((sum, { value }) => sum + value!, 0) / SUSTAINED;
    if (best && (direction === 'higher' ? mean <= best.value : mean >= best.value)) continue;
    best = {
      kind: 'bestSustained',
      value: mean,
      values: SUSTAINED,
      from: row[0].start,
      to: row[SUSTAINED - 1].end,
    };
  }
  return best;
}
