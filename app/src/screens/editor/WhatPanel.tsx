import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { windowWords, type IndicatorReading, type Metric, type Readout } from '@vivid-beacon/core';
import { useIndicatorPages } from '../../api/indicators';
import { itemsOf } from '../../api/pages';
import { SearchedPick } from '../../assets/SearchedPick';
import { useSearch } from '../../components/SearchField';
import { WordRow } from '../../components/WordRow';
import { MetricPick } from '../../assets/MetricPick';

interface WhatPanelProps {
  readonly readout: Readout;
  readonly onMetric: (metric: Metric) => void;
  readonly onIndicator: (indicator: IndicatorReading) => void;
}

const WAYS = [
  { value: 'metric', label: 'A metric' },
  { value: 'indicator', label: 'An indicator' },
] as const;

/** The subject of a readout: a metric with its own choices, or an indicator defined for all. */
export function WhatPanel({ readout, onMetric, onIndicator }: WhatPanelProps) {
  const [way, setWay] = useState<(typeof WAYS)[number]['value']>(
    readout.indicatorId === null ? 'metric' : 'indicator',
  );
  return (
    <View style={styles.panel}>
      <WordRow name="What is shown" options={WAYS} chosen={way} onChoose={setWay} />
      {way === 'metric' ? (
        <MetricPick name="Metric" chosen={readout.measures[0]?.metricId ?? null} onChoose={onMetric} />
      ) : (
        <IndicatorPick chosen={readout.indicatorId} onChoose={onIndicator} />
      )}
    </View>
  );
}

function IndicatorPick({
  chosen,
  onChoose,
}: {
  readonly chosen: string | null;
  readonly onChoose: (indicator: IndicatorReading) => void;
}) {
  const search = useSearch();
  const found = useIndicatorPages(search.settled);
  const rows = itemsOf(found.data);
  return (
    <SearchedPick
      name="Indicator"
      options={rows.map(({ id, name, assetName, window }) => ({
        value: id,
        label: name,
        detail: `${assetName}, ${windowWords(window)}`,
      }))}
      chosen={chosen}
      found={found}
      search={search.text}
      settled={search.settled}
      onSearch={search.onText}
      onChoose={(id) => onChoose(rows.find((row) => row.id === id)!)}
    />
  );
}

const styles = StyleSheet.create({ panel: { gap: 10 } });
