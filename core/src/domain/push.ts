import type { CollisionRule } from '../intake/layout';

/** How a token's exposition text is matched to metrics, and what holds where values of one push meet. */
export interface PushRule {
  /** Label that names the asset; null = labels name none. */
  readonly assetLabel: string | null;
  /** Label that names the metric; null = the name of the sample does. */
  readonly metricLabel: string | null;
  /** A series without a metric waits to be mapped, or asset and metric are made. */
  readonly unknown: 'wait' | 'make';
  /** Assets are looked for and made under this one. */
  readonly parentId: string | null;
  readonly collisions: CollisionRule;
}

/** A series that was heard in exposition text. */
export interface HeardSeries {
  /** name{label="value",…} with the labels in order. */
  readonly series: string;
  readonly name: string;
  readonly labels: Readonly<Record<string, string>>;
  /** The metric it feeds; null = it waits. */
  readonly metricId: string | null;
  readonly firstHeard: number;
  readonly lastHeard: number;
  readonly lastValue: number | null;
  /** Samples that came while it waited; none of them is stored. */
  readonly heard: number;
}

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
