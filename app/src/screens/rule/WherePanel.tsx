import type { Asset, Metric } from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';

interface WherePanelProps {
  readonly metric: Metric;
  readonly metrics: readonly Metric[];
  readonly assets: readonly Asset[];
  readonly under: string | null;
  readonly onChange: (under: string | null) => void;
}

const ONE = 'one';

/** Only this metric, or the same one of every asset below one of those above it. */
export function WherePanel({ metric, metrics, assets, under, onChange }: WherePanelProps) {
  const byId = new Map(assets.map((asset) => [asset.id, asset]));
  const above: Asset[] = [];
  for (let at = byId.get(metric.assetId); at; at = at.parentId === null ? undefined : byId.get(at.parentId))
    above.push(at);
  const inside = (id: string, top: string): boolean => {
    for (let at = byId.get(id); at; at = at.parentId === null ? undefined : byId.get(at.parentId)) {
      if (at.id === top) return true;
    }
    return false;
  };
  const same = metrics.filter(
    ({ name, unit, kind, origin }) =>
      name.toLowerCase() === metric.name.toLowerCase() &&
      unit === metric.unit &&
      kind === metric.kind &&
      origin === 'samples',
  );
  const wider = above
    .map(({ id, name }) => ({ id, name, count: same.filter(({ assetId }) => inside(assetId, id)).length }))
    .filter(({ count, id }) => count > 1 || id === under);
  return (
    <WordRow
      name="On which assets"
      options={[
        { value: ONE, label: `Only ${metric.assetName}` },
        ...wider.map(({ id, name, count }) => ({ value: id, label: `All ${count} in ${name}` })),
      ]}
      chosen={under ?? ONE}
      onChoose={(value) => onChange(value === ONE ? null : value)}
    />
  );
}
