import { StyleSheet, View } from 'react-native';
import { formatLength, formatNumber, METRIC_KINDS, type Metric, type MetricKind } from '@vivid-beacon/core';
import { MetricPick } from '../../assets/MetricPick';
import { Field } from '../../components/Field';
import { Rule } from '../../components/Rule';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import type { ColumnPlan } from '../../stores/intakePlans';
import type { SeenFeed } from '../../workers/scanFile';
import { usePalette } from '../../theme/useTheme';

interface SeriesPlannerProps {
  readonly feed: SeenFeed;
  readonly plan: ColumnPlan;
  /** What a new metric of the series would be. */
  readonly proposal: ColumnPlan;
  /** The metric it feeds, where that is one that is there already. */
  readonly fed: Metric | undefined;
  /** @param fed the metric, where one that is there was chosen. */
  readonly onPlan: (plan: ColumnPlan, fed?: Metric) => void;
}

const TAKES_SAMPLES = { origin: 'samples' } as const;
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

/** What one series of the file feeds. */
export function SeriesPlanner({ feed, plan, proposal, fed, onPlan }: SeriesPlannerProps) {
  const palette = usePalette();
  const { label, samples, stepMs, example } = feed;
  const choose = (to: ColumnPlan['to']): void => {
    if (to === 'nothing') onPlan({ to });
    else if (to === 'existing') onPlan({ to, metricId: '' });
    else onPlan(proposal.to === 'new' ? proposal : { to, name: label, unit: '', kind: 'level' });
  };
  const facts = [
    `${formatNumber(samples, 0)} ${samples === 1 ? 'sample' : 'samples'}`,
    stepMs !== null && `about ${formatLength(stepMs)} apart`,
    `such as ${example}`,
  ].filter(Boolean);
  return (
    <View style={styles.column} role="group" aria-label={`Series ${label}`}>
      <Words as="rowTitle">{label}</Words>
      <Words as="second" colour={palette.ink2}>
        {facts.join(', ')}
      </Words>
      <WordRow name={`Series ${label} feeds`} options={WAYS} chosen={plan.to} onChoose={choose} />
      {plan.to === 'new' && (
        <>
          <View style={styles.fields}>
            <View style={styles.name}>
              <Field
                label={`Metric of ${label}`}
                value={plan.name}
                onChange={(name) => onPlan({ ...plan, name })}
              />
            </View>
            <View style={styles.unit}>
              <Field label="Unit" value={plan.unit} onChange={(unit) => onPlan({ ...plan, unit })} />
            </View>
          </View>
          <WordRow
            name={`Kind of ${label}`}
            options={METRIC_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
            chosen={plan.kind}
            onChoose={(kind) => onPlan({ ...plan, kind })}
          />
        </>
      )}
      {fed && (
        <Words as="bodyStrong">{`${fed.name}, ${fed.assetName}, ${fed.plantName} (${fed.unit || 'no unit'})`}</Words>
      )}
      {plan.to === 'existing' && !fed && (
        <>
          <MetricPick
            name="Metric"
            maxHeight={220}
            filter={TAKES_SAMPLES}
            chosen={null}
            onChoose={(metric) => onPlan({ to: 'existing', metricId: metric.id }, metric)}
          />
          <Words as="second" colour={palette.cautionT}>
            Choose the metric it feeds.
          </Words>
        </>
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
