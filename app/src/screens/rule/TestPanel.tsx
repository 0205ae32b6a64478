import { View, StyleSheet } from 'react-native';
import {
  ALARM_TEST_WORDS,
  CHART_POINTS,
  CONSUMPTION_PERIODS,
  RUN_RULES,
  TESTS_OF_KIND,
  type AlarmTest,
  type AlarmTestKind,
  type Metric,
} from '@vivid-beacon/core';
import { LengthField } from '../../components/LengthField';
import { NumberField } from '../../components/NumberField';
import { ToggleRow } from '../../components/ToggleRow';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface TestPanelProps {
  readonly test: AlarmTest;
  readonly metric: Metric;
  readonly onKind: (kind: AlarmTestKind) => void;
  readonly onChange: (test: AlarmTest) => void;
}

/** What a rule looks for: one of the kinds that fit the metric, and its numbers. */
export function TestPanel({ test, metric, onKind, onChange }: TestPanelProps) {
  return (
    <View style={styles.panel}>
      <WordRow
        name="What it looks for"
        options={TESTS_OF_KIND[metric.kind].map((value) => ({ value, label: ALARM_TEST_WORDS[value] }))}
        chosen={test.kind}
        onChoose={onKind}
      />
      <TestFields test={test} unit={metric.unit} onChange={onChange} />
    </View>
  );
}

const options = <T extends string>(words: Readonly<Record<T, string>>) =>
  (Object.keys(words) as T[]).map((value) => ({ value, label: words[value] }));

const SIDES = options({ above: 'Above', below: 'Below' });
const TURNS = options({ rise: 'Rises', fall: 'Falls', either: 'Either' });
const AWAY = options({ above: 'Above the usual', below: 'Below it', either: 'Either' });
const PERIODS = CONSUMPTION_PERIODS.map((value) => ({ value, label: `in the ${value}` }));
const POINTS = CHART_POINTS.map((value) => ({
  value,
  label: value === 'sample' ? 'each sample' : `the mean of each ${value}`,
}));

function TestFields({
  test,
  unit,
  onChange,
}: {
  readonly test: AlarmTest;
  readonly unit: string;
  readonly onChange: (test: AlarmTest) => void;
}) {
  const palette = usePalette();
  const positive = (x: number): string | undefined => (x > 0 ? undefined : 'This must be more than 0');
  switch (test.kind) {
    case 'limit':
      return (
        <>
          <WordRow
            name="Side"
            options={SIDES}
            chosen={test.side}
            onChoose={(side) => onChange({ ...test, side })}
          />
          <NumberField
            label="Limit"
            unit={unit}
            value={test.limit}
            onChange={(limit) => onChange({ ...test, limit })}
          />
        </>
      );
    case 'outside':
      return (
        <View style={styles.pair}>
          <NumberField
            label="From"
            unit={unit}
            value={test.low}
            onChange={(low) => onChange({ ...test, low })}
          />
          <NumberField
            label="To"
            unit={unit}
            value={test.high}
            error={test.high > test.low ? undefined : 'This must be more than its beginning'}
            onChange={(high) => onChange({ ...test, high })}
          />
        </View>
      );
    case 'change':
      return (
        <>
          <WordRow
            name="Direction"
            options={TURNS}
            chosen={test.side}
            onChoose={(side) => onChange({ ...test, side })}
          />
          <NumberField
            label="By more than"
            unit={test.inPercent ? '%' : unit}
            value={test.limit}
            error={positive(test.limit)}
            onChange={(limit) => onChange({ ...test, limit })}
          />
          <WordRow
            name="Counted in"
            options={[
              { value: 'unit', label: unit || 'units' },
              { value: 'percent', label: 'percent' },
            ]}
            chosen={test.inPercent ? 'percent' : 'unit'}
            onChoose={(value) => onChange({ ...test, inPercent: value === 'percent' })}
          />
          <LengthField
            label="Within"
            value={test.overMs}
            onChange={(overMs) => onChange({ ...test, overMs })}
          />
        </>
      );
    case 'silence':
      return (
        <LengthField
          label="No sample for"
          value={test.forMs}
          onChange={(forMs) => onChange({ ...test, forMs })}
        />
      );
    case 'consumption':
      return (
        <>
          <NumberField
            label="More than"
            unit={unit}
            value={test.limit}
            error={positive(test.limit)}
            onChange={(limit) => onChange({ ...test, limit })}
          />
          <WordRow
            name="Period"
            options={PERIODS}
            chosen={test.per}
            onChoose={(per) => onChange({ ...test, per })}
          />
          <WordRow
            name="When"
            options={[
              { value: 'reached', label: 'once it is used' },
              { value: 'pace', label: 'as soon as the pace says so' },
            ]}
            chosen={test.pace ? 'pace' : 'reached'}
            onChoose={(value) => onChange({ ...test, pace: value === 'pace' })}
          />
          {test.pace && (
            <Words as="second" colour={palette.ink2}>
              Told from a tenth of the period on: used so far, over the share of the period that has passed.
            </Words>
          )}
        </>
      );
    case 'state':
      return (
        <>
          <NumberField label="State" value={test.code} onChange={(code) => onChange({ ...test, code })} />
          <WordRow
            name="While"
            options={[
              { value: 'is', label: 'it is this one' },
              { value: 'not', label: 'it is another' },
            ]}
            chosen={test.is ? 'is' : 'not'}
            onChoose={(value) => onChange({ ...test, is: value === 'is' })}
          />
          <Words as="second" colour={palette.ink2}>
            1 is running, 0 is stopped; further codes are your own.
          </Words>
        </>
      );
    case 'runRules':
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
            Centre and spread come from the eight weeks before it is put in force, and stay.
          </Words>
        </>
      );
    case 'baseline':
      return (
        <>
          <WordRow
            name="Side"
            options={AWAY}
            chosen={test.side}
            onChoose={(side) => onChange({ ...test, side })}
          />
          <NumberField
            label="By more than"
            unit="σ"
            value={test.limit}
            error={positive(test.limit)}
            onChange={(limit) => onChange({ ...test, limit })}
          />
          <Words as="second" colour={palette.ink2}>
            The usual is the mean of each hour of the week over the eight weeks before it is put in force.
          </Words>
        </>
      );
  }
}

const styles = StyleSheet.create({
  panel: { gap: 8, paddingVertical: 6 },
  pair: { flexDirection: 'row', gap: 12 },
});
