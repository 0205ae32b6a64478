import { useState } from 'react';
import { formatNumber, type Binding, type MetricsAlike } from '@vivid-beacon/core';
import { useFactors } from '../../api/data';
import { useAssetsById, useMetricsBelow } from '../../api/catalogue';
import { AssetPick } from '../../assets/AssetPick';
import { MetricPick } from '../../assets/MetricPick';
import { QueryResult } from '../../components/QueryResult';
import { PickList } from '../../components/PickList';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

const KINDS = [
  { value: 'metric', label: 'a metric' },
  { value: 'children', label: 'the sum of all below' },
  { value: 'attribute', label: 'an attribute' },
  { value: 'factor', label: 'a factor' },
] as const;

interface BindingPickerProps {
  readonly assetId: string;
  readonly onPick: (binding: Binding, label: string) => void;
}

const PLACES = [
  { value: 'here', label: 'on or below this asset' },
  { value: 'anywhere', label: 'anywhere' },
] as const;

/** Chooses what a name in an expression stands for. */
export function BindingPicker({ assetId, onPick }: BindingPickerProps) {
  const palette = usePalette();
  const factors = useFactors().data ?? [];
  const [kind, setKind] = useState<(typeof KINDS)[number]['value']>('metric');
  const [place, setPlace] = useState<(typeof PLACES)[number]['value']>('here');
  return (
    <>
      <WordRow name="What it stands for" options={KINDS} chosen={kind} onChoose={setKind} />
      {kind === 'metric' && (
        <>
          <WordRow name="Where it is" options={PLACES} chosen={place} onChoose={setPlace} />
          <MetricPick
            key={place}
            name="Metric"
            filter={place === 'here' ? { under: assetId } : {}}
            chosen={null}
            onChoose={({ id, name }) => onPick({ kind: 'metric', metricId: id, summary: null }, name)}
          />
        </>
      )}
      {kind === 'children' && <ChildMetricPick assetId={assetId} onPick={onPick} />}
      {kind === 'attribute' && <AttributePick assetId={assetId} onPick={onPick} />}
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

/** A name of metrics that several assets right below one asset have in common. */
function ChildMetricPick({ assetId, onPick }: BindingPickerProps) {
  const [parentId, setParentId] = useState(assetId);
  const below = useMetricsBelow(parentId, 1);
  return (
    <>
      <AssetPick
        name="Asset above them"
        maxHeight={160}
        chosen={parentId}
        onChoose={({ id }) => setParentId(id)}
      />
      <QueryResult query={below} reading="Loading the metrics below it">
        {(alike) => {
          const counts = countNames(alike);
          return counts.length === 0 ? (
            <Words as="body">Right below it no two assets have a metric of the same name.</Words>
          ) : (
            <PickList
              name="Metric below"
              options={counts.map(({ name, count }) => ({
                value: name,
                label: name,
                detail: `${formatNumber(count, 0)} assets`,
              }))}
              chosen={null}
              onChoose={(name) =>
                onPick({ kind: 'children', assetId: parentId, metricName: name, summary: null }, name)
              }
            />
          );
        }}
      </QueryResult>
    </>
  );
}

/** Names of metrics that more than one asset of the level below has, the most frequent first. */
function countNames(alike: readonly MetricsAlike[]): { name: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const { level, metric, assetIds } of alike) {
    if (level === 1) counts.set(metric.name, (counts.get(metric.name) ?? 0) + assetIds.length);
  }
  return [...counts]
    .flatMap(([name, count]) => (count > 1 ? [{ name, count }] : []))
    .sort((a, b) => b.count - a.count);
}

/** An attribute of an asset that is a number. */
function AttributePick({ assetId, onPick }: BindingPickerProps) {
  const [ownerId, setOwnerId] = useState(assetId);
  const { byId } = useAssetsById([ownerId]);
  const numbers = Object.entries(byId.get(ownerId)?.attributes ?? {}).filter(
    ([, value]) => typeof value === 'number',
  );
  return (
    <>
      <AssetPick
        name="Asset that has it"
        maxHeight={160}
        chosen={ownerId}
        onChoose={({ id }) => setOwnerId(id)}
      />
      {numbers.length === 0 ? (
        <Words as="body">This asset has no attribute that is a number.</Words>
      ) : (
        <PickList
          name="Attribute"
          options={numbers.map(([name, value]) => ({ value: name, label: `${name}: ${value}` }))}
          chosen={null}
          onChoose={(attribute) =>
            onPick({ kind: 'attribute', assetId: ownerId, attribute }, attribute.replace(/\s*[([].*$/, ''))
          }
        />
      )}
    </>
  );
}
