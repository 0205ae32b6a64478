import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { windowWords, type IndicatorReading, type Metric, type Readout } from '@vivid-beacon/core';
import { useIndicators } from '../../api/indicators';
import { Answer } from '../../components/Answer';
import { PickList } from '../../components/PickList';
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

/** What a readout shows: a metric with choices of its own, or an indicator that is governed for all. */
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
  const query = useIndicators();
  return (
    <Answer query={query} reading="Reading indicators">
      {(rows) => (
        <PickList
          name="Indicator"
          options={rows.map(({ id, name, assetName, window }) => ({
            value: id,
            label: name,
            detail: `${assetName}, ${windowWords(window)}`,
          }))}
          chosen={chosen}
          onChoose={(id) => onChoose(rows.find((row) => row.id === id)!)}
        />
      )}
    </Answer>
  );
}

const styles = StyleSheet.create({ panel: { gap: 10 } });
