import { useState } from 'react';
import type { Metric } from '@vivid-beacon/core';
import { useMetricPages, type MetricFilter } from '../api/catalogue';
import { useSettled } from '../hooks/useSettled';
import { SearchedPick, type SearchedPickProps } from './SearchedPick';

interface MetricPickProps extends SearchedPickProps {
  readonly onChoose: (metric: Metric) => void;
  /** Only these. */
  readonly filter?: Omit<MetricFilter, 'search'>;
  /** Ids that cannot be chosen. */
  readonly leaveOut?: ReadonlySet<string>;
}

const SETTLED_MS = 200;

/** Metrics with their asset, plant and unit, searched on the server, to choose one from. */
export function MetricPick({ onChoose, filter, leaveOut, ...list }: MetricPickProps) {
  const [search, setSearch] = useState('');
  const words = useSettled(search, SETTLED_MS);
  const found = useMetricPages({ ...filter, search: words });
  const metrics = found.data?.pages.flatMap(({ items }) => items) ?? [];
  return (
    <SearchedPick
      {...list}
      options={metrics
        .filter(({ id }) => !leaveOut?.has(id))
        .map(({ id, name, assetName, plantName, unit, kind }) => ({
          value: id,
          label: `${name}, ${assetName}`,
          detail: [assetName === plantName ? null : plantName, unit, kind].filter(Boolean).join(' · '),
        }))}
      found={found}
      search={search}
      settled={words}
      onSearch={setSearch}
      onChoose={(id) => onChoose(metrics.find((metric) => metric.id === id)!)}
    />
  );
}
