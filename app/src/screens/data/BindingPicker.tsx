import { useState } from 'react';
import type { Binding } from '@vivid-beacon/core';
import { useFactors } from '../../api/data';
import { useAssets, useMetrics } from '../../api/queries';
import { PickList } from '../../components/PickList';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { pathOf } from './assetTree';

const KINDS = [
  { value: 'metric', label: 'a metric' },
  { value: 'children', label: 'all below, added up' },
  { value: 'attribute', label: 'an attribute' },
  { value: 'factor', label: 'a factor' },
] as const;

interface BindingPickerProps {
  readonly assetId: string;
  readonly onPick: (binding: Binding, label: string) => void;
}

/** Chooses what a name in an expression stands for. */
export function BindingPicker({ assetId, onPick }: BindingPickerProps) {
  const palette = usePalette();
  const metrics = useMetrics().data ?? [];
  const assets = useAssets().data ?? [];
  const factors = useFactors().data ?? [];
  const [kind, setKind] = useState<(typeof KINDS)[number]['value']>('metric');
  const near = (id: string): number => (id === assetId ? 0 : 1);
  return (
    <>
      <WordRow name="What it stands for" options={KINDS} chosen={kind} onChoose={setKind} />
      {kind === 'metric' && (
        <PickList
          name="Metric"
          options={[...metrics]
            .sort((a, b) => near(a.assetId) - near(b.assetId))
            .map(({ id, name, assetName, plantName, unit }) => ({
              value: id,
              label: `${name}, ${assetName}`,
              detail: [plantName, unit].filter(Boolean).join(' · '),
            }))}
          chosen={null}
          onChoose={(metricId) =>
            onPick(
              { kind: 'metric', metricId, summary: null },
              metrics.find(({ id }) => id === metricId)!.name,
            )
          }
        />
      )}
      {kind === 'children' && (
        <PickList
          name="Metric below"
          options={childMetrics(assets, metrics).map(({ assetId: parent, name, count }) => ({
            value: `${parent}/${name}`,
            label: `${name}, all below ${assets.find(({ id }) => id === parent)!.name}`,
            detail: `${count} assets`,
          }))}
          chosen={null}
          onChoose={(key) => {
            const at = key.indexOf('/');
            const metricName = key.slice(at + 1);
            onPick({ kind: 'children', assetId: key.slice(0, at), metricName, summary: null }, metricName);
          }}
        />
      )}
      {kind === 'attribute' && (
        <PickList
          name="Attribute"
          options={assets.flatMap((asset) =>
            Object.entries(asset.attributes)
              .filter(([, value]) => typeof value === 'number')
              .map(([name, value]) => ({
                value: `${asset.id}/${name}`,
                label: `${name}: ${value}`,
                detail: pathOf(asset, assets).join(' / '),
              })),
          )}
          chosen={null}
          onChoose={(key) => {
            const at = key.indexOf('/');
            const attribute = key.slice(at + 1);
            onPick(
              { kind: 'attribute', assetId: key.slice(0, at), attribute },
              attribute.replace(/\s*[([].*$/, ''),
            );
          }}
        />
      )}
      {kind === 'factor' &&
        (factors.length === 0 ? (
          <Words as="body" colour={palette.ink2}>
            There are no equivalence factors yet. Add one under Data, Factors.
          </Words>
        ) : (
          <PickList
            name="Factor"
            options={factors.map(({ id, name, unit }) => ({ value: id, label: name, detail: unit }))}
            chosen={null}
            onChoose={(factorId) =>
              onPick({ kind: 'factor', factorId }, factors.find(({ id }) => id === factorId)!.name)
            }
          />
        ))}
    </>
  );
}

/** Names of metrics that several assets below one asset have in common. */
function childMetrics(
  assets: readonly { id: string; parentId: string | null }[],
  metrics: readonly { assetId: string; name: string }[],
): { assetId: string; name: string; count: number }[] {
  const parentOf = new Map(assets.map(({ id, parentId }) => [id, parentId]));
  const counts = new Map<string, { assetId: string; name: string; count: number }>();
  for (const { assetId, name } of metrics) {
    const parent = parentOf.get(assetId);
    if (!parent) continue;
    const key = `${parent}/${name}`;
    counts.set(key, { assetId: parent, name, count: (counts.get(key)?.count ?? 0) + 1 });
  }
  return [...counts.values()].filter(({ count }) => count > 1).sort((a, b) => b.count - a.count);
}
