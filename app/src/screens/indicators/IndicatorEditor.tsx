import { useState } from 'react';
import { useQueryClient } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import type { IndicatorDefinition, IndicatorReading, Metric, PeriodTarget, Person } from '@vivid-beacon/core';
import { useMetricsById } from '../../api/catalogue';
import { useIndicatorPreview, useSaveIndicator } from '../../api/indicators';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { useLeaving } from '../../components/LeaveTray';
import { Page } from '../../components/Page';
import { Refusal } from '../../components/Refusal';
import { Section } from '../../components/Section';
import { Sentence } from '../../components/Sentence';
import { Words } from '../../components/Words';
import { useDebounced } from '../../hooks/useDebounced';
import { usePalette } from '../../theme/useTheme';
import { PerPanel } from '../editor/PerPanel';
import { pastValues } from '../rule/usualHigh';
import { FormatPanel } from './FormatPanel';
import {
  FIRST_WINDOW,
  firstDefinition,
  problemOfDefinition,
  withMetric,
  type IndicatorSlot,
} from './indicatorDraft';
import { indicatorSentence } from './indicatorSentence';
import { JudgePanel } from './JudgePanel';
import { MeasurePanel } from './MeasurePanel';
import { OwnerPanel } from './OwnerPanel';
import { PreviewSection } from './PreviewSection';
import { ReferencePanel } from './ReferencePanel';
import { TargetPanel } from './TargetPanel';
import { WhenPanel } from './WhenPanel';

interface IndicatorEditorProps {
  readonly people: readonly Person[];
  /** The indicator that is changed; null = a new one. */
  readonly before: { readonly indicator: IndicatorReading; readonly targets: readonly PeriodTarget[] } | null;
  readonly onLeave: () => void;
}

const SETTLE_MS = 300;
const NO_TARGETS: readonly PeriodTarget[] = [];

/** The sentence of a definition, the panel of the part that is open, and what it gives. */
export function IndicatorEditor({ people, before, onLeave }: IndicatorEditorProps) {
  const palette = usePalette();
  const client = useQueryClient();
  const save = useSaveIndicator();
  const [definition, setDefinition] = useState<IndicatorDefinition | null>(
    before?.indicator.definition ?? null,
  );
  const [open, setOpen] = useState<IndicatorSlot>(before ? 'judge' : 'measure');
  const settled = useDebounced(definition, SETTLE_MS);
  const wrong = definition && problemOfDefinition(definition);
  // The debounced draft may still be an invalid one that was just corrected.
  const canPreview = !wrong && settled !== null && problemOfDefinition(settled) === null;
  const preview = useIndicatorPreview(canPreview ? settled : null, before?.targets ?? NO_TARGETS);
  const measured = definition?.measure;
  const { byId } = useMetricsById([measured?.metricId, measured?.per?.metricId]);
  const metric = definition ? byId.get(definition.measure.metricId) : undefined;
  const unit = preview.data?.reading.unit ?? before?.indicator.reading.unit ?? metric?.unit ?? '';
  const usual = preview.data?.reading.value ?? before?.indicator.reading.value ?? metric?.last?.v ?? 0;
  const { ask, question } = useLeaving(definition !== (before?.indicator.definition ?? null), onLeave);
  const change = (part: Partial<IndicatorDefinition>): void =>
    setDefinition((last) => last && { ...last, ...part });
  const choose = async (chosen: Metric): Promise<void> => {
    if (definition) {
      setDefinition(withMetric(definition, metric, chosen));
      return;
    }
    setDefinition(firstDefinition(chosen, await pastValues(client, chosen, FIRST_WINDOW)));
    setOpen('judge');
  };
  return (
    <Page
      title={before ? 'Definition' : 'New indicator'}
      onBack={ask}
      backName="Leave without saving"
      dock={
        <>
          <Button variant="quiet" label="Leave" onPress={ask} />
          <Button
            grow
            variant="primary"
            label={before ? 'Put in force' : 'Add'}
            disabled={!definition || wrong !== null || preview.isError || save.isPending}
            onPress={() =>
              save.mutate(
                {
                  id: before?.indicator.id ?? null,
                  from: before?.indicator.version ?? 0,
                  definition: definition!,
                },
                { onSuccess: onLeave },
              )
            }
          />
        </>
      }
    >
      {before && (
        <Words as="second" colour={palette.ink2}>
          {`From the moment it is put in force, on every board. Version ${before.indicator.version} goes on judging its time.`}
        </Words>
      )}
      <View style={styles.sentence}>
        <Sentence
          parts={indicatorSentence(definition, unit, (id) => byId.get(id), people)}
          open={open}
          onOpen={(key) => setOpen(key as IndicatorSlot)}
        />
      </View>
      <Refusal of={save} />
      {wrong && (
        <Words as="second" colour={palette.breachT}>
          {wrong}
        </Words>
      )}
      {definition && <PreviewSection preview={preview} definition={definition} />}
      {(!definition || open === 'measure') && (
        <MeasurePanel
          measure={definition?.measure ?? null}
          metric={metric}
          onMetric={(chosen) => void choose(chosen)}
          onChange={(measure) => change({ measure })}
        />
      )}
      {definition && (
        <>
          {open === 'per' && (
            <PerPanel
              measure={definition.measure}
              onChange={(changed) => change({ measure: changed(definition.measure) })}
            />
          )}
          {open === 'window' && <WhenPanel definition={definition} onChange={change} />}
          {open === 'judge' && (
            <JudgePanel
              definition={definition}
              unit={unit}
              usual={usual}
              onChange={(judge) => change({ judge })}
            />
          )}
          {open === 'target' && (
            <TargetPanel
              definition={definition}
              unit={unit}
              usual={usual}
              zone={metric?.zone ?? 'UTC'}
              onChange={(target) => change({ target })}
            />
          )}
          {open === 'reference' && (
            <ReferencePanel
              definition={definition}
              unit={unit}
              usual={usual}
              onChange={(reference) => change({ reference })}
            />
          )}
          {open === 'format' && <FormatPanel definition={definition} onChange={change} />}
          {open === 'owner' && <OwnerPanel definition={definition} people={people} onChange={change} />}
          <Section title="Name" closed={false}>
            <Field
              label="Name of the indicator"
              value={definition.name}
              onChange={(name) => change({ name })}
            />
            <Field
              label="What it is for"
              value={definition.description}
              multiline
              onChange={(description) => change({ description })}
            />
          </Section>
        </>
      )}
      {question}
    </Page>
  );
}

const styles = StyleSheet.create({ sentence: { paddingVertical: 8 } });
