import { View, StyleSheet } from 'react-native';
import {
  alarmTestLabel,
  testsOfRule,
  type AlarmTest,
  type AlarmTestKind,
  type Metric,
  type RuleInput,
} from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';
import { fieldsOfTest } from './tests/fieldsOfTest';

interface TestPanelProps {
  readonly rule: Pick<RuleInput, 'test' | 'over'>;
  readonly metric: Metric;
  /** Of what is judged. */
  readonly unit: string;
  readonly onKind: (kind: AlarmTestKind) => void;
  readonly onChange: (test: AlarmTest) => void;
}

/** What a rule looks for: one of the kinds that fit the metric, and its numbers. */
export function TestPanel({ rule: { test, over }, metric, unit, onKind, onChange }: TestPanelProps) {
  const Fields = fieldsOfTest(test);
  return (
    <View style={styles.panel}>
      <WordRow
        name="What it looks for"
        options={testsOfRule(metric.kind, over).map((value) => ({ value, label: alarmTestLabel(value) }))}
        chosen={test.kind}
        onChoose={onKind}
      />
      <Fields test={test} unit={unit} onChange={onChange} />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8, paddingVertical: 6 } });
