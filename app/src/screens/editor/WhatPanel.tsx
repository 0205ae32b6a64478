import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { IndicatorReading, Metric, Readout } from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';
import { IndicatorPick } from '../../assets/IndicatorPick';
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

const styles = StyleSheet.create({ panel: { gap: 10 } });
