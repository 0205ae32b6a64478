import type { HeardSeries, PushRule } from '../api/tokens';

/** What a rule makes of the labels of a series; null where they say too little. */
export function namesByRule(
  { name, labels }: Pick<HeardSeries, 'name' | 'labels'>,
  { assetLabel, metricLabel }: Pick<PushRule, 'assetLabel' | 'metricLabel'>,
): { readonly asset: string; readonly metric: string } | null {
  const asset = assetLabel === null ? undefined : labels[assetLabel];
  const named = metricLabel === null ? name : labels[metricLabel];
  if (!asset || !named) return null;
  // Labels that the rule does not use still tell series apart: they stay part of the name.
  const rest = Object.entries(labels).filter(([label]) => label !== assetLabel && label !== metricLabel);
  const more = rest.map(([label, value]) => `${label} ${value}`).join(', ');
  return { asset, metric: more === '' ? named : `${named} (${more})` };
}
