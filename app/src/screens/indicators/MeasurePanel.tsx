import { StyleSheet, View } from 'react-native';
import { SUMMARIES_OF_KIND, SUMMARY_WORDS, type Measure, type Metric } from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';
import { MetricPanel } from '../editor/MetricPanel';

interface MeasurePanelProps {
  readonly measure: Measure | null;
  readonly metrics: readonly Metric[];
  readonly onMetric: (metric: Metric) => void;
  readonly onChange: (measure: Measure) => void;
}

/** Which metric is judged, and how it is summarised. */
export function MeasurePanel({ measure, metrics, onMetric, onChange }: MeasurePanelProps) {
  const metric = metrics.find(({ id }) => id === measure?.metricId);
  return (
    <View style={styles.panel}>
      {measure && metric && (
        <WordRow
          name="Summary"
          options={SUMMARIES_OF_KIND[metric.kind].map((value) => ({ value, label: SUMMARY_WORDS[value] }))}
          chosen={measure.summary}
          onChoose={(summary) => onChange({ ...measure, summary })}
        />
      )}
      <MetricPanel name="Metric" metrics={metrics} chosen={measure?.metricId ?? null} onChoose={onMetric} />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8 } });
