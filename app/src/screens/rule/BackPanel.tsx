import { StyleSheet, View } from 'react-native';
import { backWords, unitOfLimit, type AlarmTest, type RuleInput } from '@vivid-beacon/core';
import { NumberField } from '../../components/NumberField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { delaysOf } from '../ruleWords';

interface BackPanelProps {
  readonly rule: RuleInput;
  readonly unit: string;
  readonly decimals: number;
  readonly onChange: (part: Partial<RuleInput>) => void;
}

/** When an alarm is back to normal: how far from the limit, and for how long. */
export function BackPanel({ rule, unit, decimals, onChange }: BackPanelProps) {
  const palette = usePalette();
  const { test } = rule;
  const back = backWords(test, unit, decimals);
  return (
    <View style={styles.panel}>
      {back && (
        <Words as="body" colour={palette.ink2}>
          {`The alarm ends when the value is ${back}${rule.offDelayMs > 0 ? ' and has been so for the off-delay' : ''}: the limit less the deadband, so that it does not come and go at the limit.`}
        </Words>
      )}
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
