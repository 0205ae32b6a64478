import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  formatLength,
  formatMoment,
  formatNumber,
  formatValue,
  type Intake,
  type Level,
  type Metric,
} from '@vivid-beacon/core';
import { useIntakes, useMetrics } from '../api/queries';
import { usePerson } from '../api/session';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { FileIcon, KeyIcon } from '../components/icons';
import { LampWord } from '../components/LampWord';
import { Page } from '../components/Page';
import { Row } from '../components/Row';
import { Section } from '../components/Section';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { usePalette } from '../theme/useTheme';
import { mayBuild } from './mayAct';

const SHOWN_FIRST = 30;

/** Feeds and what they last said, files that were brought in, and the ways to bring in more. */
export function DataScreen() {
  const palette = usePalette();
  const router = useRouter();
  const build = mayBuild(usePerson());
  const metrics = useMetrics();
  const intakes = useIntakes();
  return (
    <Page
      title="Data"
      tools={
        build && (
          <View style={styles.tools}>
            <Button
              label="Tokens"
              name="Push tokens"
              icon={<KeyIcon size={20} color={palette.ink} strokeWidth={1.75} />}
              onPress={() => router.push('/data/tokens')}
            />
            <Button
              look="main"
              label="Intake"
              icon={<FileIcon size={20} color={palette.btnT} strokeWidth={1.75} />}
              onPress={() => router.push('/data/intake')}
            />
          </View>
        )
      }
    >
      <Section title="Files brought in" aside={intakes.data ? String(intakes.data.length) : ''}>
        <Answer query={intakes} reading="Reading intakes">
          {(rows) => (
            <>
              {rows.map((intake, i) => (
                <IntakeRow key={intake.id} intake={intake} last={i === rows.length - 1} />
              ))}
              {rows.length === 0 && (
                <Words as="body" colour={palette.ink2}>
                  No file has been brought in yet.
                </Words>
              )}
            </>
          )}
        </Answer>
      </Section>
      <Answer query={metrics} reading="Reading feeds">
        {(rows) => <Feeds metrics={rows} />}
      </Answer>
    </Page>
  );
}

function IntakeRow({ intake, last }: { readonly intake: Omit<Intake, 'refusals'>; readonly last: boolean }) {
  const now = useNow();
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const counts = [
    `${formatNumber(intake.added, 0)} added`,
    intake.unchanged > 0 && `${formatNumber(intake.unchanged, 0)} there already`,
    intake.corrected > 0 && `${formatNumber(intake.corrected, 0)} corrected`,
    intake.refusedCount > 0 && `${formatNumber(intake.refusedCount, 0)} refused`,
  ].filter(Boolean);
  return (
    <Row
      title={intake.fileName}
      second={`${counts.join(', ')}. ${intake.startedBy}, ${formatMoment(intake.startedAt, zone, now)}`}
      last={last}
    />
  );
}

const LEVEL_OF_FEED: Readonly<Record<Metric['health']['state'], Level>> = {
  reporting: 'clear',
  silent: 'nodata',
  never: 'nodata',
};

const FEED_WORDS: Readonly<Record<Metric['health']['state'], string>> = {
  reporting: 'Reports',
  silent: 'Silent',
  never: 'No data',
};

function Feeds({ metrics }: { readonly metrics: readonly Metric[] }) {
  const [search, setSearch] = useState('');
  const [all, setAll] = useState(false);
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const found = metrics
    .filter((metric) => {
      const text = `${metric.name} ${metric.assetName} ${metric.plantName} ${metric.key}`.toLowerCase();
      return words.every((word) => text.includes(word));
    })
    .sort((a, b) => Number(a.health.state === 'reporting') - Number(b.health.state === 'reporting'));
  const shown = all ? found : found.slice(0, SHOWN_FIRST);
  return (
    <Section title="Metrics and their feeds" aside={`${found.length} of ${metrics.length}`} closed={false}>
      <Field
        label="Search metrics"
        hideLabel
        placeholder="Search by metric, asset, plant or key"
        value={search}
        onChange={setSearch}
      />
      {shown.map((metric, i) => (
        <FeedRow key={metric.id} metric={metric} last={i === shown.length - 1} />
      ))}
      {found.length > shown.length && (
        <Button look="quiet" label={`Show all ${found.length}`} onPress={() => setAll(true)} />
      )}
    </Section>
  );
}

function FeedRow({ metric, last }: { readonly metric: Metric; readonly last: boolean }) {
  const palette = usePalette();
  const now = useNow();
  const state =
    metric.health.state === 'never'
      ? 'nothing heard yet'
      : metric.health.state === 'silent'
        ? `silent for ${formatLength(metric.health.quietMs ?? 0)}`
        : `heard ${formatMoment(metric.last!.t, metric.zone, now)}`;
  return (
    <Row
      title={`${metric.name}, ${metric.assetName}`}
      second={
        <>
          <Words
            as="second"
            colour={palette.ink2}
          >{`${metric.plantName} · ${metric.kind} · every ${formatLength(metric.intervalMs)} · ${state}`}</Words>
          <Words as="caption" colour={palette.ink3}>
            {metric.key}
          </Words>
        </>
      }
      left={<LampWord level={LEVEL_OF_FEED[metric.health.state]} word={FEED_WORDS[metric.health.state]} />}
      right={<Words as="figure">{formatValue(metric.last?.v ?? null, metric.unit, metric.decimals)}</Words>}
      last={last}
    />
  );
}

const styles = StyleSheet.create({
  tools: { flexDirection: 'row', gap: 8, flexWrap: 'wrap', justifyContent: 'flex-end' },
});
