import { SUMMARY_WORDS, type MetricKind, type Summary } from '../domain/metric';

/** A part of a formula: which summary of which metric. */
export interface FormulaPart {
  readonly summary: Summary;
  readonly kind: MetricKind;
  readonly metricName: string;
  readonly assetName: string;
}

/** How a number is made, in words: "sum of Gas used (Dryer 5) ÷ sum of Dried weight (Dryer 5) × 100". */
export function formulaWords(upper: FormulaPart, lower: FormulaPart | null, factor: number): string {
  if (!lower) return partWords(upper);
  const ratio = `${partWords(upper)} ÷ ${partWords(lower)}`;
  return factor === 1 ? ratio : `${ratio} × ${factor}`;
}

/**
 * Several metrics of one kind as one part of a formula: one by its own name, more by the name they share.
 *
 * @example togetherAs('sum', [{ kind: 'amount', name: 'Washed', assetName: 'Line 1' }, …]) // metricName "Washed", assetName "2 metrics together"
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
