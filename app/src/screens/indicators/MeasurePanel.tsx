import { StyleSheet, View } from 'react-native';
import { SUMMARIES_OF_KIND, SUMMARY_WORDS, type Measure, type Metric } from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';
import { MetricPick } from '../../assets/MetricPick';

interface MeasurePanelProps {
  readonly measure: Measure | null;
  /** That of the measure. */
  readonly metric: Metric | undefined;
  readonly onMetric: (metric: Metric) => void;
  readonly onChange: (measure: Measure) => void;
}

/** Which metric is judged, and how it is summarised. */
export function MeasurePanel({ measure, metric, onMetric, onChange }: MeasurePanelProps) {
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
      <MetricPick name="Metric" chosen={measure?.metricId ?? null} onChoose={onMetric} />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8 } });
