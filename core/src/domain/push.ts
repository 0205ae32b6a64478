import type { HeardSeries, PushRule } from '../api/tokens';

/** Asset and metric names from the labels of a series, by a rule; null if labels are missing. */
export function namesByRule(
  { name, labels }: Pick<HeardSeries, 'name' | 'labels'>,
  { assetLabel, metricLabel }: Pick<PushRule, 'assetLabel' | 'metricLabel'>,
): { readonly asset: string; readonly metric: string } | null {
  const asset = assetLabel === null ? undefined : labels[assetLabel];
  const named = metricLabel === null ? name : labels[metricLabel];
  if (!asset || !named) return null;
  // Labels that the rule does not use still distinguish series, so they stay part of the name.
  const rest = Object.entries(labels).filter(([label]) => label !== assetLabel && label !== metricLabel);
  const more = rest.map(([label, value]) => `${label} ${value}`).join(', ');
  return { asset, metric: more === '' ? named : `${named} (${more})` };
}
