import { useState } from 'react';
import { usePathname, useRouter } from 'expo-router';
import { View } from 'react-native';
import {
  FEED_STATES,
  FEED_WORDS,
  formatLength,
  formatNumber,
  formatValue,
  type FeedState,
  type Metric,
} from '@vivid-beacon/core';
import { useFeedCounts, useFeedPages } from '../../api/catalogue';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { KeyIcon } from '../../components/icons';
import { LongList } from '../../components/LongList';
import { LampWord } from '../../components/LampWord';
import { Page } from '../../components/Page';
import { SearchField, useSearch } from '../../components/SearchField';
import { Row } from '../../components/Row';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { mayBuild } from '../../api/mayAct';
import { DataPlaces } from './DataPlaces';
import { feedSentence, LEVEL_OF_FEED } from './feedWords';
import { siteMoment } from '../siteMoment';

/** Health of every feed, those that need a look first. */
export function FeedsScreen() {
  const palette = usePalette();
  const router = useRouter();
  const build = mayBuild(usePerson());
  return (
    <Page
      title="Data"
      term="feed"
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
      <Feeds />
    </Page>
  );
}

function Feeds() {
  const search = useSearch();
  const [state, setState] = useState<FeedState | 'all'>('all');
  const counts = useFeedCounts().data ?? {};
  const query = useFeedPages({
    search: search.settled,
    state: state === 'all' ? undefined : state,
  });
  const all = Object.values(counts).reduce((sum, n) => sum + n, 0);
  return (
    <View>
      <WordRow
        name="State of the feed"
        options={[
          { value: 'all' as const, label: `All ${formatNumber(all, 0)}` },
          ...FEED_STATES.filter((each) => counts[each] !== undefined).map((value) => ({
            value,
            label: `${FEED_WORDS[value]} ${formatNumber(counts[value] ?? 0, 0)}`,
          })),
        ]}
        chosen={state}
        onChoose={setState}
      />
      <SearchField
        label="Search metrics"
        placeholder="Search by metric, asset, plant or key"
        search={search}
      />
      <LongList
        pages={query}
        reading="Loading feeds"
        empty="No feed is like this."
        fits={({ health }: Metric) => state === 'all' || health.state === state}
      >
        {(metric, last) => <FeedRow key={metric.id} metric={metric} last={last} />}
      </LongList>
    </View>
  );
}

function FeedRow({ metric, last }: { readonly metric: Metric; readonly last: boolean }) {
  const palette = usePalette();
  const router = useRouter();
  const path = usePathname();
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
      chosen={path === `/data/metrics/${metric.id}`}
      last={last}
    />
  );
}
