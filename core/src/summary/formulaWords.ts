import { SUMMARY_WORDS, type MetricKind, type Summary } from '../domain/metric';

/** A term of a formula: a summary of a metric. */
export interface FormulaPart {
  readonly summary: Summary;
  readonly kind: MetricKind;
  readonly metricName: string;
  readonly assetName: string;
}

/** The formula of a number in words: "sum of Gas used (Dryer 5) ÷ sum of Dried weight (Dryer 5) × 100". */
export function formulaWords(
  numerator: FormulaPart,
  denominator: FormulaPart | null,
  factor: number,
  perAttribute: string | null = null,
): string {
  if (perAttribute !== null) return `${partWords(numerator)} ÷ ${perAttribute}`;
  if (!denominator) return partWords(numerator);
  const ratio = `${partWords(numerator)} ÷ ${partWords(denominator)}`;
  return factor === 1 ? ratio : `${ratio} × ${factor}`;
}

/**
 * One or more metrics of a kind as a term of a formula: one by its own name, several by their shared name.
 *
 * @example
 * togetherAs('sum', [
 *   { kind: 'amount', name: 'Washed', assetName: 'Line 1' },
 *   { kind: 'amount', name: 'Washed', assetName: 'Line 2' },
 * ]).assetName // => '2 metrics together'
 */
export function togetherAs(
  summary: Summary,
  metrics: readonly { readonly kind: MetricKind; readonly name: string; readonly assetName: string }[],
): FormulaPart {
  const [first] = metrics;
  if (metrics.length === 1)
    return { summary, kind: first.kind, metricName: first.name, assetName: first.assetName };
  const alike = metrics.every(({ name }) => name === first.name);
  return {
    summary,
    kind: first.kind,
    metricName: alike ? first.name : 'different metrics',
    assetName: `${metrics.length} metrics together`,
  };
}

function partWords({ summary, kind, metricName, assetName }: FormulaPart): string {
  const words = summary === 'mean' && kind === 'level' ? 'time-weighted mean' : SUMMARY_WORDS[summary];
  return `${words} of ${metricName} (${assetName})`;
}
