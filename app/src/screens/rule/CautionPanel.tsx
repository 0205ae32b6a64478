import { StyleSheet, View } from 'react-native';
import {
  ALARM_PRIORITIES,
  isMilder,
  milderTest,
  type AlarmTest,
  type Person,
  type RuleInput,
} from '@vivid-beacon/core';
import { ToggleRow } from '../../components/ToggleRow';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { PRIORITY_OPTIONS } from './LevelPanel';
import { fieldsOfTest } from './tests/fieldsOfTest';

interface CautionPanelProps {
  readonly rule: RuleInput;
  readonly people: readonly Person[];
  readonly unit: string;
  readonly onChange: (part: Pick<RuleInput, 'caution'>) => void;
}

const LOWEST = ALARM_PRIORITIES[ALARM_PRIORITIES.length - 1];

/** A first Caution before a Breach: a milder test, low in priority, told to nobody. */
export function firstCaution(test: AlarmTest): RuleInput['caution'] {
  const milder = milderTest(test);
  return milder && { test: milder, priority: LOWEST, message: '', toDo: '', told: [], escalation: null };
}

/** The Caution that comes before a Breach: its limit, its priority and who gets a notice. */
export function CautionPanel({ rule, people, unit, onChange }: CautionPanelProps) {
  const palette = usePalette();
  const { caution, test } = rule;
  const Fields = fieldsOfTest(caution?.test ?? test);
  return (
    <View style={styles.panel}>
      <WordRow
        name="Stages"
        options={[
          { value: 'one', label: 'Breach alone' },
          { value: 'two', label: 'Caution before it' },
        ]}
        chosen={caution ? 'two' : 'one'}
        onChoose={(value) => onChange({ caution: value === 'two' ? (caution ?? firstCaution(test)) : null })}
      />
      {caution && (
        <>
          <Fields
            test={caution.test}
            unit={unit}
            onChange={(next) => onChange({ caution: { ...caution, test: next } })}
          />
          {!isMilder(caution.test, test) && (
            <Words as="second" colour={palette.breachT}>
              The Caution must come before the Breach: the same test with a milder limit.
            </Words>
          )}
          <WordRow
            name="Priority of the Caution"
            options={PRIORITY_OPTIONS}
            chosen={caution.priority}
            onChoose={(priority) => onChange({ caution: { ...caution, priority } })}
          />
          <Words as="bodyStrong">Who gets a notice of the Caution</Words>
          <ToggleRow
            name="Who gets a notice of the Caution"
            options={people.map(({ id, name }) => ({ value: id, label: name }))}
            chosen={caution.told}
            onChange={(told) => onChange({ caution: { ...caution, told } })}
          />
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8, paddingVertical: 6 } });
