import type { Metric } from '@vivid-beacon/core';
import { useMetricPages, type MetricSearch } from '../api/catalogue';
import { itemsOf } from '../api/pages';
import { useSearch } from '../components/SearchField';
import { SearchedPick, type SearchedPickProps } from './SearchedPick';

interface MetricPickProps extends SearchedPickProps {
  readonly onChoose: (metric: Metric) => void;
  /** Only these. */
  readonly filter?: Omit<MetricSearch, 'search'>;
  /** Ids that cannot be chosen. */
  readonly leaveOut?: ReadonlySet<string>;
}

/** Metrics with their asset, plant and unit, searched on the server, to choose one from. */
export function MetricPick({ onChoose, filter, leaveOut, ...list }: MetricPickProps) {
  const search = useSearch();
  const found = useMetricPages({ ...filter, search: search.settled });
  const metrics = itemsOf(found.data);
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
      onChoose={(id) => onChoose(metrics.find((metric) => metric.id === id)!)}
    />
  );
}
