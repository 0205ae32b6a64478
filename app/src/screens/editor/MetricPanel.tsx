import type { Metric } from '@vivid-beacon/core';
import { PickList } from '../../components/PickList';

interface MetricPanelProps {
  readonly name: string;
  readonly metrics: readonly Metric[];
  readonly chosen: string | null;
  readonly onChoose: (metric: Metric) => void;
}

/** Every metric, with its asset, plant and unit, to search and choose from. */
export function MetricPanel({ name, metrics, chosen, onChoose }: MetricPanelProps) {
  return (
    <PickList
      name={name}
      options={metrics.map(({ id, name: title, assetName, plantName, unit, kind }) => ({
        value: id,
        label: `${title}, ${assetName}`,
        detail: [assetName === plantName ? null : plantName, unit, kind].filter(Boolean).join(' · '),
      }))}
      chosen={chosen}
      onChoose={(id) => onChoose(metrics.find((metric) => metric.id === id)!)}
    />
  );
}
