import { CHART_POINTS, RUN_RULES } from '@vivid-beacon/core';
import { ToggleRow } from '../../../components/ToggleRow';
import { WordRow } from '../../../components/WordRow';
import { Words } from '../../../components/Words';
import { usePalette } from '../../../theme/useTheme';
import type { FieldsProps } from './fields';

const POINTS = CHART_POINTS.map((value) => ({
  value,
  label: value === 'sample' ? 'each sample' : `the mean of each ${value}`,
}));

export function RunRulesFields({ test, onChange }: FieldsProps<'runRules'>) {
  const palette = usePalette();
  return (
    <>
      <WordRow
        name="Points"
        options={POINTS}
        chosen={test.point}
        onChoose={(point) => onChange({ ...test, point })}
      />
      <ToggleRow
        name="Run rules"
        options={RUN_RULES.map(({ rule, words }) => ({ value: rule, label: `${rule}: ${words}` }))}
        chosen={test.rules}
        onChange={(rules) => onChange({ ...test, rules: [...rules].sort((a, b) => a - b) })}
      />
      <Words as="second" colour={palette.ink2}>
        Centre and spread come from the eight weeks before it is put in force, and then stay fixed.
      </Words>
    </>
  );
}
