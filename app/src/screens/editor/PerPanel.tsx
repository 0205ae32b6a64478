import { StyleSheet, View } from 'react-native';
import type { Measure, Metric } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { WordRow } from '../../components/WordRow';
import { MetricPanel } from './MetricPanel';

interface PerPanelProps {
  readonly per: Measure['per'];
  readonly metrics: readonly Metric[];
  readonly onChoose: (metric: Metric | null) => void;
  readonly onRatio: (factor: number, unit: string | null) => void;
}

/** By what a measure is divided, sum over sum; or nothing. */
export function PerPanel({ per, metrics, onChoose, onRatio }: PerPanelProps) {
  return (
    <View style={styles.panel}>
      {per && (
        <>
          <WordRow
            name="Shown as"
            options={[
              { value: 'ratio' as const, label: 'Ratio of the sums' },
              { value: 'percent' as const, label: 'Percent' },
            ]}
            chosen={per.factor === 100 ? 'percent' : 'ratio'}
            onChoose={(way) => (way === 'percent' ? onRatio(100, '%') : onRatio(1, null))}
          />
          <Button look="quiet" label="Show it on its own" onPress={() => onChoose(null)} />
        </>
      )}
      <MetricPanel name="Per metric" metrics={metrics} chosen={per?.metricId ?? null} onChoose={onChoose} />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 10 } });
