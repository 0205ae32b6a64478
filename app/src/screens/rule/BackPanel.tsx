import { StyleSheet, View } from 'react-native';
import { unitOfLimit, type AlarmTest, type RuleInput } from '@vivid-beacon/core';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { delaysOf } from '../ruleWords';

interface BackPanelProps {
  readonly rule: RuleInput;
  readonly unit: string;
  readonly onChange: (part: Partial<RuleInput>) => void;
}

/** When an alarm is back to normal: how far from the limit, and for how long. */
export function BackPanel({ rule, unit, onChange }: BackPanelProps) {
  const { test } = rule;
  return (
    <View style={styles.panel}>
      {'deadband' in test && (
        <NumberField
          label="Deadband"
          unit={unitOfLimit(test, { unit, decimals: 0 }).unit}
          value={test.deadband}
          error={test.deadband < 0 ? 'The deadband must be at least 0' : undefined}
          onChange={(deadband) => onChange({ test: { ...test, deadband } as AlarmTest })}
        />
      )}
      <WordRow
        name="Off-delay"
        options={delaysOf(rule.over)}
        chosen={String(rule.offDelayMs / 60_000)}
        onChoose={(minutes) => onChange({ offDelayMs: Number(minutes) * 60_000 })}
      />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8, paddingVertical: 6 } });
