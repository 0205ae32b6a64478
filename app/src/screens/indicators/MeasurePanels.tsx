import { StyleSheet, View } from 'react-native';
import { SUMMARIES_OF_KIND, SUMMARY_WORDS, type Measure, type Metric } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
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

/** By what it is divided, sum over sum; or nothing. */
export function PerPanel({
  measure,
  metrics,
  onChange,
}: Omit<MeasurePanelProps, 'onMetric'> & { readonly measure: Measure }) {
  const { per } = measure;
  return (
    <View style={styles.panel}>
      {per && (
        <>
          <WordRow
            name="Shown as"
            options={[
              { value: 'ratio', label: 'Ratio of the sums' },
              { value: 'percent', label: 'Percent' },
            ]}
            chosen={per.factor === 100 ? 'percent' : 'ratio'}
            onChoose={(way) =>
              onChange({
                ...measure,
                per: {
                  ...per,
                  ...(way === 'percent' ? { factor: 100, unit: '%' } : { factor: 1, unit: null }),
                },
              })
            }
          />
          <Button look="quiet" label="On its own" onPress={() => onChange({ ...measure, per: null })} />
        </>
      )}
      <MetricPanel
        name="Per metric"
        metrics={metrics}
        chosen={per?.metricId ?? null}
        onChoose={({ id, kind }) =>
          onChange({
            ...measure,
            per: {
              metricId: id,
              summary: SUMMARIES_OF_KIND[kind][0],
              factor: per?.factor ?? 1,
              unit: per?.unit ?? null,
            },
          })
        }
      />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8 } });
