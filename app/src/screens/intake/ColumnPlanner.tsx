import { StyleSheet, View } from 'react-native';
import { METRIC_KINDS, type Metric, type MetricKind } from '@vivid-beacon/core';
import { Field } from '../../components/Field';
import { PickList } from '../../components/PickList';
import { Rule } from '../../components/Rule';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import type { ColumnPlan } from '../../stores/intakeStore';
import { usePalette } from '../../theme/useTheme';

interface ColumnPlannerProps {
  readonly column: { readonly heading: string; readonly unit: string | null };
  readonly plan: ColumnPlan;
  readonly metrics: readonly Metric[];
  readonly onPlan: (plan: ColumnPlan) => void;
}

const WAYS = [
  { value: 'new' as const, label: 'New metric' },
  { value: 'existing' as const, label: 'Existing metric' },
  { value: 'nothing' as const, label: 'Leave out' },
];

const KIND_WORDS: Readonly<Record<MetricKind, string>> = {
  level: 'Level (like a temperature)',
  amount: 'Amount in each interval',
  register: 'Register that only grows',
  state: 'State code',
};

/** What one column of the file feeds. */
export function ColumnPlanner({ column, plan, metrics, onPlan }: ColumnPlannerProps) {
  const palette = usePalette();
  const choose = (to: ColumnPlan['to']): void => {
    if (to === 'nothing') onPlan({ to });
    else if (to === 'existing') onPlan({ to, metricId: '' });
    else onPlan({ to, name: column.heading, unit: column.unit ?? '', kind: 'level' });
  };
  return (
    <View style={styles.column} role="group" aria-label={`Column ${column.heading}`}>
      <Words as="rowTitle">{column.heading}</Words>
      <WordRow name={`Column ${column.heading} feeds`} options={WAYS} chosen={plan.to} onChoose={choose} />
      {plan.to === 'new' && (
        <>
          <View style={styles.fields}>
            <View style={styles.name}>
              <Field
                label={`Metric of ${column.heading}`}
                value={plan.name}
                onChange={(name) => onPlan({ ...plan, name })}
              />
            </View>
            <View style={styles.unit}>
              <Field label="Unit" value={plan.unit} onChange={(unit) => onPlan({ ...plan, unit })} />
            </View>
          </View>
          <WordRow
            name={`Kind of ${column.heading}`}
            options={METRIC_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
            chosen={plan.kind}
            onChoose={(kind) => onPlan({ ...plan, kind })}
          />
        </>
      )}
      {plan.to === 'existing' && (
        <PickList
          name="Metric"
          maxHeight={220}
          options={metrics.map(({ id, name, assetName, unit }) => ({
            value: id,
            label: `${name}, ${assetName}`,
            detail: unit,
          }))}
          chosen={plan.metricId}
          onChoose={(metricId) => onPlan({ to: 'existing', metricId })}
        />
      )}
      {plan.to === 'existing' && plan.metricId === '' && (
        <Words as="second" colour={palette.cautionT}>
          Choose the metric it feeds.
        </Words>
      )}
      <Rule />
    </View>
  );
}

const styles = StyleSheet.create({
  column: { paddingVertical: 6, gap: 4 },
  fields: { flexDirection: 'row', gap: 10 },
  name: { flex: 2, minWidth: 0 },
  unit: { flex: 1, minWidth: 0 },
});
