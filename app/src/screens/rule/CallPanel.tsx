import { StyleSheet, View } from 'react-native';
import { MINUTE_MS, type Person, type RuleInput } from '@vivid-beacon/core';
import { Field } from '../../components/Field';
import { ToggleRow } from '../../components/ToggleRow';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface CallPanelProps {
  readonly rule: RuleInput;
  readonly people: readonly Person[];
  readonly onChange: (part: Partial<RuleInput>) => void;
}

const NEVER = 'never';
const AFTER = [5, 15, 30, 60];

/** Who gets a notice, what it says, what is to be done, and who is told when nobody acknowledges. */
export function CallPanel({ rule, people, onChange }: CallPanelProps) {
  const palette = usePalette();
  const options = people.map(({ id, name }) => ({ value: id, label: name }));
  const { escalation } = rule;
  return (
    <View style={styles.panel}>
      <Words as="bodyStrong">Who gets a notice</Words>
      <ToggleRow
        name="Who gets a notice"
        options={options}
        chosen={rule.told}
        onChange={(told) => onChange({ told })}
      />
      <Field
        label="What it says"
        value={rule.message}
        placeholder="{asset}: {metric} is {value}, looked for {limit}"
        onChange={(message) => onChange({ message })}
      />
      <Field
        label="What to do"
        value={rule.toDo}
        placeholder="Slow the feed and check steam trap B"
        multiline
        onChange={(toDo) => onChange({ toDo })}
      />
      <WordRow
        name="When nobody acknowledges"
        options={[
          { value: NEVER, label: 'Do not escalate' },
          ...AFTER.map((minutes) => ({
            value: String(minutes),
            label: `Notify others after ${minutes} min`,
          })),
        ]}
        chosen={escalation ? String(escalation.afterMs / MINUTE_MS) : NEVER}
        onChoose={(value) =>
          onChange({
            escalation:
              value === NEVER ? null : { afterMs: Number(value) * MINUTE_MS, to: escalation?.to ?? [] },
          })
        }
      />
      {escalation && (
        <>
          <ToggleRow
            name="Who is notified then"
            options={options}
            chosen={escalation.to}
            onChange={(to) => onChange({ escalation: { ...escalation, to } })}
          />
          {escalation.to.length === 0 && (
            <Words as="second" colour={palette.breachT}>
              Choose whom to notify then.
            </Words>
          )}
        </>
      )}
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 10, paddingVertical: 6 } });
