import { useState } from 'react';
import type { Metric } from '@vivid-beacon/core';
import { useMetricPages, type MetricFilter } from '../api/catalogue';
import { PickList, type PickOption } from '../components/PickList';
import { useSettled } from '../hooks/useSettled';

interface MetricPickProps {
  readonly name: string;
  readonly chosen: string | null;
  readonly onChoose: (metric: Metric) => void;
  /** Only these. */
  readonly filter?: Omit<MetricFilter, 'search'>;
  /** Ids that cannot be chosen. */
  readonly leaveOut?: ReadonlySet<string>;
  /** Something else that can be chosen instead of a metric, above them. */
  readonly instead?: { readonly label: string; readonly onChoose: () => void };
  readonly maxHeight?: number;
}

const INSTEAD = 'instead';
const SETTLED_MS = 200;

/** Metrics with their asset, plant and unit, searched on the server, to choose one from. */
export function MetricPick({
  name,
  chosen,
  onChoose,
  filter,
  leaveOut,
  instead,
  maxHeight,
}: MetricPickProps) {
  const [search, setSearch] = useState('');
  const query = useMetricPages({ ...filter, search: useSettled(search, SETTLED_MS) });
  const metrics = query.data?.pages.flatMap(({ items }) => items) ?? [];
  const options: PickOption<string>[] = metrics
    .filter(({ id }) => !leaveOut?.has(id))
    .map(({ id, name: title, assetName, plantName, unit, kind }) => ({
      value: id,
      label: `${title}, ${assetName}`,
      detail: [assetName === plantName ? null : plantName, unit, kind].filter(Boolean).join(' · '),
    }));
  return (
    <PickList
      name={name}
      options={instead ? [{ value: INSTEAD, label: instead.label }, ...options] : options}
      chosen={chosen ?? (instead ? INSTEAD : null)}
      onChoose={(id) =>
        id === INSTEAD ? instead!.onChoose() : onChoose(metrics.find((metric) => metric.id === id)!)
      }
      maxHeight={maxHeight}
      searched={{
        text: search,
        onText: setSearch,
        total: query.data?.pages[0].total ?? 0,
        onMore: query.hasNextPage ? () => void query.fetchNextPage() : null,
        reading: query.isPending,
      }}
    />
  );
}
