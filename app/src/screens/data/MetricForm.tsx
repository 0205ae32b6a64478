import { Refusal } from '../../components/Refusal';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  MINUTE_MS,
  CUT_WORDS,
  CUTS,
  METRIC_KINDS,
  STAMP_WORDS,
  STAMPS,
  type Metric,
  type MetricKind,
  type MetricInput,
} from '@vivid-beacon/core';
import { useSaveMetric } from '../../api/dataChanges';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { LengthField } from '../../components/LengthField';
import { NumberField } from '../../components/NumberField';
import { OptionalNumberField } from '../../components/OptionalNumberField';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface MetricFormProps {
  readonly metric: Metric | null;
  readonly assetId: string;
  readonly onDone: () => void;
}

const KIND_WORDS: Readonly<Record<MetricKind, string>> = {
  level: 'Level',
  amount: 'Amount',
  register: 'Register',
  state: 'State',
};
const KIND_MEANS: Readonly<Record<MetricKind, string>> = {
  level: 'A value that stands until the next one, such as a temperature or a flow.',
  amount: 'How much in each interval, such as kg washed in 15 minutes.',
  register: 'A counter that only grows, such as a meter reading; resets and rollovers are recognised.',
  state: 'A code such as 1 running, 0 stopped.',
};

/** What a metric is and how its samples are to be read. */
export function MetricForm({ metric, assetId, onDone }: MetricFormProps) {
  const palette = usePalette();
  const save = useSaveMetric();
  const [form, setForm] = useState<MetricInput>({
    name: metric?.name ?? '',
    unit: metric?.unit ?? '',
    kind: metric?.kind ?? 'level',
    intervalMs: metric?.intervalMs ?? MINUTE_MS,
    maxGapMs: metric?.maxGapMs ?? 3 * MINUTE_MS,
    rollover: metric?.rollover ?? null,
    decimals: metric?.decimals ?? 1,
    plausibleLow: metric?.plausibleLow ?? null,
    plausibleHigh: metric?.plausibleHigh ?? null,
    retentionDays: metric?.retentionDays ?? null,
    stamped: metric?.stamped ?? 'start',
    cut: metric?.cut ?? 'start',
  });
  const set = (part: Partial<MetricInput>): void => setForm({ ...form, ...part });
  return (
    <>
      <View style={styles.pair}>
        <Field label="Name of the metric" value={form.name} onChange={(name) => set({ name })} />
        <Field label="Unit" value={form.unit} onChange={(unit) => set({ unit })} placeholder="kWh" />
      </View>
      {metric && (
        <Words as="second" colour={palette.ink2}>
          {metric.ucum
            ? `Understood as ${metric.ucum} (UCUM), shown as you wrote it.`
            : 'A unit of its own: it is only compared with itself.'}
        </Words>
      )}
      <WordRow
        name="Kind of metric"
        options={METRIC_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }))}
        chosen={form.kind}
        onChoose={(kind) => set({ kind })}
      />
      <Words as="second" colour={palette.ink2}>
        {KIND_MEANS[form.kind]}
      </Words>
      <View style={styles.pair}>
        <LengthField
          label="Logging interval"
          value={form.intervalMs}
          onChange={(intervalMs) => set({ intervalMs })}
        />
        <LengthField
          label="Longest allowed gap"
          value={form.maxGapMs ?? 3 * form.intervalMs}
          onChange={(maxGapMs) => set({ maxGapMs })}
        />
      </View>
      {form.kind === 'amount' && (
        <>
          <Words as="second" colour={palette.ink2}>
            {metric && form.stamped !== metric.stamped
              ? 'Times stand for. Samples that are there are moved by one interval.'
              : 'Times stand for'}
          </Words>
          <WordRow
            name="Times stand for"
            options={STAMPS.map((value) => ({ value, label: STAMP_WORDS[value] }))}
            chosen={form.stamped}
            onChoose={(stamped) => set({ stamped })}
          />
          <Words as="second" colour={palette.ink2}>
            An amount that a window cuts counts
          </Words>
          <WordRow
            name="An amount that a window cuts counts"
            options={CUTS.map((value) => ({ value, label: CUT_WORDS[value] }))}
            chosen={form.cut}
            onChoose={(cut) => set({ cut })}
          />
        </>
      )}
      <View style={styles.pair}>
        <OptionalNumberField
          label="Lowest plausible value"
          value={form.plausibleLow}
          unit={form.unit}
          onChange={(plausibleLow) => set({ plausibleLow })}
        />
        <OptionalNumberField
          label="Highest plausible value"
          value={form.plausibleHigh}
          unit={form.unit}
          onChange={(plausibleHigh) => set({ plausibleHigh })}
        />
      </View>
      <View style={styles.pair}>
        {form.kind === 'register' && (
          <OptionalNumberField
            label="Starts again at 0 after"
            value={form.rollover}
            unit={form.unit}
            onChange={(rollover) => set({ rollover })}
          />
        )}
        <NumberField
          label="Decimals shown"
          value={form.decimals}
          onChange={(decimals) => set({ decimals })}
        />
        <OptionalNumberField
          label="Keep samples for"
          value={form.retentionDays}
          unit="days"
          onChange={(retentionDays) => set({ retentionDays })}
        />
      </View>
      <Words as="second" colour={palette.ink2}>
        Values outside the plausible range are kept and marked, no summary uses them. When samples are thrown
        away, quarter-hour aggregates stay, so totals and trends reach back as before.
      </Words>
      <Refusal of={save} />
      <Button
        variant="primary"
        label={save.isPending ? 'Saving' : metric ? 'Save metric' : 'Add metric'}
        disabled={save.isPending}
        onPress={() => save.mutate({ id: metric?.id ?? null, assetId, ...form }, { onSuccess: onDone })}
      />
    </>
  );
}

const styles = StyleSheet.create({ pair: { flexDirection: 'row', flexWrap: 'wrap', gap: 10 } });
