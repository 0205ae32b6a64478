import { View, StyleSheet } from 'react-native';
import {
  alarmTestLabel,
  testsOfMetric,
  type AlarmTest,
  type AlarmTestKind,
  type Metric,
} from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';
import { fieldsOfTest } from './tests/fieldsOfTest';

interface TestPanelProps {
  readonly test: AlarmTest;
  readonly metric: Metric;
  readonly onKind: (kind: AlarmTestKind) => void;
  readonly onChange: (test: AlarmTest) => void;
}

/** What a rule looks for: one of the kinds that fit the metric, and its numbers. */
export function TestPanel({ test, metric, onKind, onChange }: TestPanelProps) {
  const Fields = fieldsOfTest(test);
  return (
    <View style={styles.panel}>
      <WordRow
        name="What it looks for"
        options={testsOfMetric(metric.kind).map((value) => ({ value, label: alarmTestLabel(value) }))}
        chosen={test.kind}
        onChoose={onKind}
      />
      <Fields test={test} unit={metric.unit} onChange={onChange} />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8, paddingVertical: 6 } });
