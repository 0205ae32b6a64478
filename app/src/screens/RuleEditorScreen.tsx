import { useMemo, useState } from 'react';
import { useRouter } from 'expo-router';
import { keepPreviousData, useQuery, useQueryClient, type QueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import {
  MINUTE_MS,
  formatValue,
  LEVEL_WORDS,
  SUMMARIES_OF_KIND,
  type AlarmRule,
  type Metric,
} from '@vivid-beacon/core';
import { rehearse } from '../api/rehearsal';
import { usePutInForce, type RuleForm } from '../api/changes';
import { askDistribution, useAlarmRules, useMetrics } from '../api/queries';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { Notice } from '../components/Notice';
import { NumberField } from '../components/NumberField';
import { Page } from '../components/Page';
import { Section } from '../components/Section';
import { Sentence, type SentencePart } from '../components/Sentence';
import { WordRow } from '../components/WordRow';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { MetricPanel } from './editor/MetricPanel';
import { RehearsalView } from './rule/RehearsalView';
import { ThresholdCurve } from './rule/ThresholdCurve';
import { delayWords } from './ruleWords';

const REHEARSAL_DAYS = 90;
const DELAYS = [0, 5, 10, 15, 30, 60].map((minutes) => ({
  value: String(minutes),
  label: minutes === 0 ? 'At once' : `${minutes} min`,
}));

type RuleSlot = 'level' | 'metric' | 'limit' | 'delay' | 'deadband';

/** Writes an alarm rule as a sentence, and rehearses it on the past while it is written. */
export function RuleEditorScreen({ from }: { readonly from: string | null }) {
  const metrics = useMetrics();
  const rules = useAlarmRules();
  const router = useRouter();
  return (
    <Answer query={metrics} reading="Reading metrics">
      {(rows) => (
        <Answer query={rules} reading="Reading rules">
          {(inForce) => (
            <RuleEditor
              metrics={rows}
              before={inForce.find(({ id }) => id === from) ?? null}
              onLeave={() => router.navigate('/alarms')}
            />
          )}
        </Answer>
      )}
    </Answer>
  );
}

/** A rule in force as the draft of the one that takes its place. */
function draftOf({ id, inForce, inForceFrom, aside, ...rule }: AlarmRule): RuleForm {
  void [inForce, inForceFrom, aside];
  return { ...rule, replaces: id };
}

function RuleEditor({
  metrics,
  before,
  onLeave,
}: {
  readonly metrics: readonly Metric[];
  /** The rule that is changed; null = a new one. */
  readonly before: AlarmRule | null;
  readonly onLeave: () => void;
}) {
  const palette = usePalette();
  const put = usePutInForce();
  const [open, setOpen] = useState<RuleSlot>(before ? 'limit' : 'metric');
  const [rule, setRule] = useState<RuleForm | null>(before && draftOf(before));
  const metric = metrics.find(({ id }) => id === rule?.metricId);
  const change = (part: Partial<RuleForm>): void => setRule((last) => last && { ...last, ...part });
  const client = useQueryClient();
  const choose = async (chosen: Metric): Promise<void> => {
    const limit = await firstLimit(client, chosen);
    setRule((last) => ({
      side: 'above',
      deadband: 0,
      onDelayMs: 0,
      offDelayMs: 0,
      level: 'breach',
      latching: false,
      ...last,
      metricId: chosen.id,
      limit,
      name: `${chosen.assetName} ${chosen.name.toLowerCase()} high`,
    }));
    setOpen('limit');
  };
  const rehearsal = useQuery({
    queryKey: ['readings', 'rehearsal', rule && { ...rule, name: '' }],
    queryFn: ({ signal }) => rehearse({ ...rule!, name: 'Rehearsal' }, REHEARSAL_DAYS, signal),
    enabled: rule !== null,
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  });
  const parts = useMemo(() => ruleSentence(rule, metric), [rule, metric]);
  const unit = metric?.unit ?? '';
  return (
    <Page
      title="Alarm rule"
      onBack={onLeave}
      backName="Leave without saving"
      dock={
        <>
          <Button look="quiet" label="Leave" onPress={onLeave} />
          <Button
            grow
            look="main"
            label={before ? 'Put in its place' : 'Put in force'}
            disabled={!rule || put.isPending}
            onPress={() => put.mutate(rule!, { onSuccess: onLeave })}
          />
        </>
      }
    >
      {before && (
        <Words as="body" colour={palette.ink2}>
          {`In place of "${before.name}", ${before.side} ${formatValue(before.limit, unit, metric?.decimals ?? 1)}. Its history stays.`}
        </Words>
      )}
      <View style={styles.sentence}>
        <Sentence parts={parts} open={open} onOpen={(key) => setOpen(key as RuleSlot)} />
      </View>
      {put.isError && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>{`Could not save the rule. ${put.error.message}`}</Words>
        </View>
      )}
      {(!rule || open === 'metric') && (
        <Section title="Metric">
          <MetricPanel
            name="Metric"
            metrics={metrics}
            chosen={rule?.metricId ?? null}
            onChoose={(chosen) => void choose(chosen)}
          />
        </Section>
      )}
      {rule && metric && (
        <>
          {open === 'level' && (
            <>
              <WordRow
                name="Level"
                options={(['breach', 'caution'] as const).map((value) => ({
                  value,
                  label: LEVEL_WORDS[value],
                }))}
                chosen={rule.level}
                onChoose={(level) => change({ level })}
              />
              <WordRow
                name="When it is back to normal"
                options={[
                  { value: 'ends', label: 'the alarm is over' },
                  { value: 'latches', label: 'it stands until a person resets it' },
                ]}
                chosen={rule.latching ? 'latches' : 'ends'}
                onChoose={(value) => change({ latching: value === 'latches' })}
              />
            </>
          )}
          {open === 'limit' && (
            <View style={styles.fields}>
              <WordRow
                name="Side"
                options={[
                  { value: 'above', label: 'Above' },
                  { value: 'below', label: 'Below' },
                ]}
                chosen={rule.side}
                onChoose={(side) => change({ side: side as RuleForm['side'] })}
              />
              <NumberField
                label="Limit"
                unit={unit}
                value={rule.limit}
                onChange={(limit) => change({ limit })}
              />
            </View>
          )}
          {open === 'delay' && (
            <WordRow
              name="On-delay"
              options={DELAYS}
              chosen={String(rule.onDelayMs / MINUTE_MS)}
              onChoose={(minutes) => change({ onDelayMs: Number(minutes) * MINUTE_MS })}
            />
          )}
          {open === 'deadband' && (
            <NumberField
              label="Deadband"
              unit={unit}
              value={rule.deadband}
              error={rule.deadband < 0 ? 'The deadband must be at least 0' : undefined}
              onChange={(deadband) => change({ deadband })}
            />
          )}
          <Section title="Rehearsal" aside={`last ${REHEARSAL_DAYS} days`}>
            <Answer query={rehearsal} reading={`Running it on ${REHEARSAL_DAYS} days`}>
              {(answer) =>
                answer.range === null ? (
                  <Notice
                    kind="empty"
                    title="Nothing to rehearse on"
                    text="This metric has no samples in the last 90 days. The rule works on what comes."
                  />
                ) : (
                  <View style={rehearsal.isPlaceholderData && styles.old}>
                    <RehearsalView answer={answer} zone={metric.zone} />
                    <ThresholdCurve
                      answer={answer}
                      limit={rule.limit}
                      unit={unit}
                      decimals={metric.decimals}
                      onChange={(limit) => change({ limit })}
                    />
                  </View>
                )
              }
            </Answer>
          </Section>
          <Section title="Name" closed={false}>
            <Field label="Name of the rule" value={rule.name} onChange={(name) => change({ name })} />
          </Section>
        </>
      )}
    </Page>
  );
}

/** A first limit above nearly all hourly values of the past; the newest value where there is no past. */
async function firstLimit(client: QueryClient, metric: Metric): Promise<number> {
  const ask = {
    measure: { metricId: metric.id, summary: SUMMARIES_OF_KIND[metric.kind][0], per: null },
    window: { kind: 'rolling', count: 1, unit: 'hour' },
  } as const;
  const newest = metric.last?.v ?? 0;
  const { values } = await client
    .fetchQuery({ queryKey: ['readings', 'distribution', ask], queryFn: () => askDistribution(ask) })
    .catch(() => ({ values: [] as number[] }));
  const high = values[Math.floor((values.length - 1) * 0.995)] ?? newest;
  return Number(high.toFixed(metric.decimals));
}

function ruleSentence(rule: RuleForm | null, metric: Metric | undefined): SentencePart[] {
  const words = (text: string): SentencePart => ({ kind: 'words', text });
  const slot = (key: RuleSlot, text: string): SentencePart => ({ kind: 'slot', key, text });
  if (!rule || !metric) return [words('Raise an alarm when'), slot('metric', 'a metric')];
  const back = rule.side === 'above' ? rule.limit - rule.deadband : rule.limit + rule.deadband;
  return [
    words('Raise a'),
    slot('level', LEVEL_WORDS[rule.level]),
    words('when'),
    slot('metric', `${metric.name.toLowerCase()}, ${metric.assetName}`),
    words('stays'),
    slot('limit', `${rule.side} ${formatValue(rule.limit, metric.unit, metric.decimals)}`),
    words('for'),
    slot('delay', delayWords(rule.onDelayMs)),
    words(`; lower it ${rule.side === 'above' ? 'at or under' : 'at or over'}`),
    slot('deadband', formatValue(back, metric.unit, metric.decimals)),
  ];
}

const styles = StyleSheet.create({
  sentence: { paddingVertical: 8 },
  fields: { gap: 8, paddingVertical: 6 },
  old: { opacity: 0.6 },
});
