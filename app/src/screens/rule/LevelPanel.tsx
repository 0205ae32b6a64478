import { ALARM_PRIORITIES, LEVEL_WORDS, type RuleInput } from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface LevelPanelProps {
  readonly rule: RuleInput;
  readonly onChange: (part: Partial<RuleInput>) => void;
}

export const PRIORITY_OPTIONS = ALARM_PRIORITIES.map((value) => ({
  value,
  label: `${value[0].toUpperCase()}${value.slice(1)}`,
}));

/** How serious an alarm is, how soon somebody must act, and whether it waits for a reset. */
export function LevelPanel({ rule, onChange }: LevelPanelProps) {
  const palette = usePalette();
  return (
    <>
      <WordRow
        name="Level"
        options={(['breach', 'caution'] as const).map((value) => ({ value, label: LEVEL_WORDS[value] }))}
        chosen={rule.level}
        onChoose={(level) => onChange(level === 'breach' ? { level } : { level, caution: null })}
      />
      <WordRow
        name="Priority"
        options={PRIORITY_OPTIONS}
        chosen={rule.priority}
        onChoose={(priority) => onChange({ priority })}
      />
      <Words as="second" colour={palette.ink2}>
        How soon a person must act. Of all alarms about 5 % high, 15 % medium and 80 % low is advised.
      </Words>
      <WordRow
        name="When the value returns to normal"
        options={[
          { value: 'ends', label: 'the alarm is over' },
          { value: 'latches', label: 'it stays active until someone resets it' },
        ]}
        chosen={rule.latching ? 'latches' : 'ends'}
        onChoose={(value) => onChange({ latching: value === 'latches' })}
      />
    </>
  );
}
