import { useEffect, useMemo, useRef, useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import {
  firstTest,
  isMilder,
  MINUTE_MS,
  type AlarmRule,
  type Metric,
  type Person,
  type RuleInput,
} from '@vivid-beacon/core';
import { useAssetsById, useMetricsById } from '../../api/catalogue';
import { usePutInForce } from '../../api/changes';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { useLeaving } from '../../components/LeaveTray';
import { Page } from '../../components/Page';
import { Section } from '../../components/Section';
import { Sentence } from '../../components/Sentence';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { MetricPick } from '../../assets/MetricPick';
import { IndicatorPick } from '../../assets/IndicatorPick';
import { delaysOf, ruleLine } from '../ruleWords';
import { BackPanel } from './BackPanel';
import { CallPanel } from './CallPanel';
import { CautionPanel } from './CautionPanel';
import { draftOf, firstDraft, draftOnIndicator, overOther, usualName, withTest } from './draft';
import { OverPanel } from './OverPanel';
import { RuleHoursPanel } from './RuleHoursPanel';
import { LevelPanel } from './LevelPanel';
import { RehearsalSection } from './RehearsalSection';
import { ruleSentence, type RuleSlot } from './ruleSentence';
import { SuppressPanel } from './SuppressPanel';
import { TestPanel } from './TestPanel';
import { firstPeriods, useJudged } from './useJudged';
import { usualHigh } from './usualHigh';
import { WherePanel } from './WherePanel';

interface RuleEditorProps {
  readonly people: readonly Person[];
  /** The rule that is changed; null = a new one. */
  readonly before: AlarmRule | null;
  /** The metric that a new one begins with. */
  readonly begin?: Metric | null;
  readonly onLeave: () => void;
}

/** Chooses a metric once, when the editor opens. */
function useBeginning(begin: Metric | null, choose: (metric: Metric) => Promise<void>): void {
  const start = useRef(choose);
  useEffect(() => {
    if (begin) void start.current(begin);
  }, [begin]);
}

/** The sentence of a rule, the panel of the part that is open, and what the rule would have done. */
export function RuleEditor({ people, before, begin = null, onLeave }: RuleEditorProps) {
  const palette = usePalette();
  const client = useQueryClient();
  const put = usePutInForce();
  const [open, setOpen] = useState<RuleSlot>(before ? 'test' : 'metric');
  const [rule, setRule] = useState<RuleInput | null>(before && draftOf(before));
  const { byId: metrics } = useMetricsById([rule?.metricId, rule?.suppress?.metricId]);
  const metric = metrics.get(rule?.metricId ?? '');
  const { byId: assets } = useAssetsById([rule?.under]);
  const change = (part: Partial<RuleInput>): void => setRule((last) => last && { ...last, ...part });
  const choose = async (chosen: Metric): Promise<void> => {
    const usual = await usualHigh(client, chosen, chosen.origin === 'samples' ? null : firstPeriods(chosen));
    setRule((last) => firstDraft(chosen, usual, last));
    setOpen('test');
  };
  useBeginning(begin, choose);
  const chooseKind = async (kind: RuleInput['test']['kind']): Promise<void> => {
    if (!rule || !metric) return;
    const usual = await usualHigh(client, metric, rule.over);
    const ownName = rule.name !== usualName(metric, rule.test.kind);
    change({
      test: firstTest(kind, metric, usual),
      caution: null,
      ...(ownName ? {} : { name: usualName(metric, kind) }),
    });
  };
  const chooseOver = async (over: RuleInput['over']): Promise<void> => {
    if (!rule || !metric) return;
    change(overOther(rule, metric, over, await usualHigh(client, metric, over)));
  };
  const [first] = useState(rule);
  const { ask, question } = useLeaving(rule !== first, onLeave);
  const judged = useJudged(rule, metric);
  const parts = useMemo(
    () => ruleSentence(rule, { metrics, assets, people, judged }),
    [rule, metrics, assets, people, judged],
  );
  const complete =
    rule !== null &&
    rule.escalation?.to.length !== 0 &&
    (rule.caution === null || isMilder(rule.caution.test, rule.test));
  return (
    <Page
      title="Alarm rule"
      onBack={ask}
      backName="Leave without saving"
      dock={
        <>
          <Button variant="quiet" label="Leave" onPress={ask} />
          <Button
            grow
            variant="primary"
            label={before ? 'Replace the rule' : 'Put in force'}
            disabled={!complete || put.isPending}
            onPress={() => put.mutate(rule!, { onSuccess: onLeave })}
          />
        </>
      }
    >
      {before && (
        <Words as="body" colour={palette.ink2}>
          {`Replaces "${before.name}": ${ruleLine(before)}. Its history is kept.`}
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
      {rule && metric && open === 'metric' && <WherePanel metric={metric} rule={rule} onChange={change} />}
      {(!rule || open === 'metric') && (
        <Section title="Metric">
          <MetricPick
            name="Metric"
            chosen={rule?.metricId ?? null}
            onChoose={(chosen) => void choose(chosen)}
          />
        </Section>
      )}
      {(!rule || open === 'metric') && (
        <Section title="Or an indicator" closed={false}>
          <IndicatorPick
            chosen={rule?.over?.indicatorId ?? null}
            onChoose={(chosen) => {
              setRule((last) => draftOnIndicator(chosen, last));
              setOpen('test');
            }}
          />
        </Section>
      )}
      {rule && metric && judged && (
        <>
          {open === 'level' && <LevelPanel rule={rule} onChange={change} />}
          {open === 'test' && (
            <TestPanel
              rule={rule}
              metric={metric}
              unit={judged.unit}
              onKind={(kind) => void chooseKind(kind)}
              onChange={(test) => change(withTest(rule, test))}
            />
          )}
          {open === 'over' && (
            <OverPanel rule={rule} metric={metric} onChange={(over) => void chooseOver(over)} />
          )}
          {open === 'caution' && (
            <CautionPanel rule={rule} people={people} unit={judged.unit} onChange={change} />
          )}
          {open === 'delay' && (
            <WordRow
              name="On-delay"
              options={delaysOf(rule.over)}
              chosen={String(rule.onDelayMs / MINUTE_MS)}
              onChoose={(minutes) => change({ onDelayMs: Number(minutes) * MINUTE_MS })}
            />
          )}
          {open === 'back' && (
            <BackPanel rule={rule} unit={judged.unit} decimals={judged.decimals} onChange={change} />
          )}
          {open === 'hours' && (
            <RuleHoursPanel
              hours={rule.hours}
              narrows={rule.over !== null}
              onChange={(hours) => change({ hours })}
            />
          )}
          {open === 'suppress' && (
            <SuppressPanel
              suppress={rule.suppress}
              metric={metric}
              onChange={(suppress) => change({ suppress })}
            />
          )}
          {open === 'call' && <CallPanel rule={rule} people={people} onChange={change} />}
          <RehearsalSection
            rule={rule}
            metric={metric}
            judged={judged}
            before={before}
            onTest={(test) => change(withTest(rule, test))}
            onCaution={(caution) => change({ caution })}
          />
          <Section title="Name" closed={false}>
            <Field label="Name of the rule" value={rule.name} onChange={(name) => change({ name })} />
          </Section>
        </>
      )}
      {question}
    </Page>
  );
}

const styles = StyleSheet.create({ sentence: { paddingVertical: 8 } });
