import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  FEED_STATES,
  FEED_WORDS,
  formatLength,
  formatValue,
  type FeedState,
  type Metric,
} from '@vivid-beacon/core';
import { useMetrics } from '../../api/queries';
import { usePerson } from '../../api/session';
import { Answer } from '../../components/Answer';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { KeyIcon } from '../../components/icons';
import { LampWord } from '../../components/LampWord';
import { Page } from '../../components/Page';
import { Row } from '../../components/Row';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { mayBuild } from '../../api/mayAct';
import { DataPlaces } from './DataPlaces';
import { feedRank, feedSentence, LEVEL_OF_FEED } from './feedWords';
import { siteMoment } from '../siteMoment';

const SHOWN_FIRST = 40;

/** Health of every feed, those that need a look first. */
export function FeedsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const build = mayBuild(usePerson());
  const metrics = useMetrics();
  return (
    <Page
      title="Data"
      top={<DataPlaces open="/data/feeds" />}
      tools={
        build && (
          <Button
            label="Tokens"
            name="Push tokens"
            icon={<KeyIcon size={20} color={palette.ink} strokeWidth={1.75} />}
            onPress={() => router.push('/data/tokens')}
          />
        )
      }
    >
      <Answer query={metrics} reading="Reading feeds">
        {(rows) => <Feeds metrics={rows.filter(({ origin }) => origin === 'samples')} />}
      </Answer>
    </Page>
  );
}

function Feeds({ metrics }: { readonly metrics: readonly Metric[] }) {
  const [search, setSearch] = useState('');
  const [state, setState] = useState<FeedState | 'all'>('all');
  const [all, setAll] = useState(false);
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const count = (each: FeedState): number => metrics.filter(({ health }) => health.state === each).length;
  const found = metrics
    .filter((metric) => {
      const text = `${metric.name} ${metric.assetName} ${metric.plantName} ${metric.key}`.toLowerCase();
      return (state === 'all' || metric.health.state === state) && words.every((word) => text.includes(word));
    })
    .sort((a, b) => feedRank(a) - feedRank(b));
  const shown = all ? found : found.slice(0, SHOWN_FIRST);
  return (
    <View>
      <WordRow
        name="State of the feed"
        options={[
          { value: 'all' as const, label: `All ${metrics.length}` },
          ...FEED_STATES.filter((each) => count(each) > 0).map((value) => ({
            value,
            label: `${FEED_WORDS[value]} ${count(value)}`,
          })),
        ]}
        chosen={state}
        onChoose={setState}
      />
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
        <View style={styles.more}>
          <Button look="quiet" label={`Show all ${found.length}`} onPress={() => setAll(true)} />
        </View>
      )}
    </View>
  );
}

function FeedRow({ metric, last }: { readonly metric: Metric; readonly last: boolean }) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow();
  const heard = metric.last ? `heard ${siteMoment(metric.last.t, metric.zone, now)}` : '';
  return (
    <Row
      title={`${metric.name}, ${metric.assetName}`}
      second={
        <>
          <Words as="second" colour={palette.ink2}>
            {[metric.plantName, `every ${formatLength(metric.intervalMs)}`, feedSentence(metric), heard]
              .filter(Boolean)
              .join(' · ')}
          </Words>
          <Words as="caption" colour={palette.ink3}>
            {metric.key}
          </Words>
        </>
      }
      left={<LampWord level={LEVEL_OF_FEED[metric.health.state]} word={FEED_WORDS[metric.health.state]} />}
      right={<Words as="figure">{formatValue(metric.last?.v ?? null, metric.unit, metric.decimals)}</Words>}
      onPress={() => router.push(`/data/metrics/${metric.id}`)}
      last={last}
    />
  );
}

const styles = StyleSheet.create({ more: { paddingVertical: 10, alignItems: 'flex-start' } });
