import { StyleSheet, View } from 'react-native';
import type { Measure, Metric } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { WordRow } from '../../components/WordRow';
import { MetricPick } from '../../assets/MetricPick';

interface PerPanelProps {
  readonly per: Measure['per'];
  readonly onChoose: (metric: Metric | null) => void;
  readonly onRatio: (factor: number, unit: string | null) => void;
}

/** By what a measure is divided, sum over sum; or nothing. */
export function PerPanel({ per, onChoose, onRatio }: PerPanelProps) {
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
          <Button variant="quiet" label="Show it on its own" onPress={() => onChoose(null)} />
        </>
      )}
      <MetricPick name="Per metric" chosen={per?.metricId ?? null} onChoose={onChoose} />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 10 } });
