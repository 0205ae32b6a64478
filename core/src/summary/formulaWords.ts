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

function partWords({ summary, kind, metricName, assetName }: FormulaPart): string {
  const words = summary === 'mean' && kind === 'level' ? 'time-weighted mean' : SUMMARY_WORDS[summary];
  return `${words} of ${metricName} (${assetName})`;
}
