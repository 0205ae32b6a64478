import { StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import {
  BUCKET_WORDS,
  BUCKETS,
  SUMMARIES_OF_KIND,
  SUMMARY_WORDS,
  type Bucket,
  type Metric,
  type Readout,
  type Summary,
  type WindowSpec,
} from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { PickList } from '../../components/PickList';
import { WordRow } from '../../components/WordRow';
import type { createReadoutDraftStore, Slot } from '../../stores/readoutDraftStore';
import { BandPanel } from './BandPanel';
import { MetricPanel } from './MetricPanel';
import { WindowPanel } from './WindowPanel';

export const SLOT_TITLES: Readonly<Record<Slot, string>> = {
  metric: 'Metric',
  summary: 'Summary',
  per: 'Per another metric',
  window: 'Window',
  bucket: 'One value for',
  band: 'Target band',
  look: 'Title and decimals',
};

interface SlotPanelProps {
  readonly store: ReturnType<typeof createReadoutDraftStore>;
  readonly metrics: readonly Metric[];
  readonly boardWindow: WindowSpec;
  readonly unit: string;
  readonly decimals: number;
  readonly now: number;
}

/** The choices of the slot that is open. */
export function SlotPanel({ store, metrics, boardWindow, unit, decimals, now }: SlotPanelProps) {
  const { readout, open, actions } = useStore(store);
  if (!readout || open === 'metric') {
    return (
      <MetricPanel
        name="Metric"
        metrics={metrics}
        chosen={readout?.measure.metricId ?? null}
        onChoose={actions.chooseMetric}
      />
    );
  }
  const metric = metrics.find(({ id }) => id === readout.measure.metricId);
  switch (open) {
    case 'summary':
      return (
        <PickList
          name="Summary"
          searchFrom={99}
          options={(metric ? SUMMARIES_OF_KIND[metric.kind] : []).map((value) => ({
            value,
            label: summaryLabel(value, metric!),
          }))}
          chosen={readout.measure.summary}
          onChoose={actions.chooseSummary}
        />
      );
    case 'per':
      return (
        <PerPanel
          readout={readout}
          metrics={metrics}
          choose={actions.choosePer}
          setRatio={actions.setRatio}
        />
      );
    case 'window':
      return (
        <WindowPanel
          window={readout.window}
          zone={metric?.zone ?? 'UTC'}
          now={now}
          onChange={(window) => actions.change({ window })}
        />
      );
    case 'bucket':
      return (
        <WordRow
          name="One value for"
          options={[
            { value: 'samples' as const, label: 'Every sample' },
            ...BUCKETS.map((value) => ({ value, label: `The ${BUCKET_WORDS[value]}` })),
          ]}
          chosen={readout.bucket ?? 'samples'}
          onChoose={(value) => actions.change({ bucket: value === 'samples' ? null : (value as Bucket) })}
        />
      );
    case 'band':
      return (
        <BandPanel
          readout={readout}
          window={readout.window ?? boardWindow}
          unit={unit}
          decimals={decimals}
          onChange={(band) => actions.change({ band })}
        />
      );
    case 'look':
      return <LookPanel readout={readout} change={actions.change} />;
  }
}

function summaryLabel(summary: Summary, metric: Metric): string {
  const words = summary === 'mean' && metric.kind === 'level' ? 'time-weighted mean' : SUMMARY_WORDS[summary];
  return words[0].toUpperCase() + words.slice(1);
}

interface PerPanelProps {
  readonly readout: Readout;
  readonly metrics: readonly Metric[];
  readonly choose: (metric: Metric | null) => void;
  readonly setRatio: (factor: number, unit: string | null) => void;
}

function PerPanel({ readout, metrics, choose, setRatio }: PerPanelProps) {
  const { per } = readout.measure;
  return (
    <View style={styles.panel}>
      {per && (
        <>
          <WordRow
            name="Shown as"
            options={[
              { value: 'ratio' as const, label: 'Ratio of the sums' },
              { value: 'percent' as const, label: 'Percent' },
            ]}
            chosen={per.factor === 100 ? 'percent' : 'ratio'}
            onChoose={(way) => (way === 'percent' ? setRatio(100, '%') : setRatio(1, null))}
          />
          <Button look="quiet" label="Show it on its own" onPress={() => choose(null)} />
        </>
      )}
      <MetricPanel name="Per metric" metrics={metrics} chosen={per?.metricId ?? null} onChoose={choose} />
    </View>
  );
}

function LookPanel({
  readout,
  change,
}: {
  readonly readout: Readout;
  readonly change: (part: Partial<Pick<Readout, 'title' | 'decimals'>>) => void;
}) {
  return (
    <View style={styles.panel}>
      <Field
        label="Title (empty: made from the choices)"
        value={readout.title ?? ''}
        onChange={(text) => change({ title: text === '' ? null : text })}
      />
      <WordRow
        name="Decimals"
        options={[
          { value: 'auto', label: 'Automatic' },
          ...['0', '1', '2', '3'].map((value) => ({ value, label: `${value} decimals` })),
        ]}
        chosen={readout.decimals === null ? 'auto' : String(readout.decimals)}
        onChoose={(value) => change({ decimals: value === 'auto' ? null : Number(value) })}
      />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 10 } });
