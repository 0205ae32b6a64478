import { useRouter } from 'expo-router';
import { formatLength, formatNumber, type Metric } from '@vivid-beacon/core';
import { Button } from '../../components/Button';
import { LampWord } from '../../components/LampWord';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { siteMoment } from '../siteMoment';

/** Silent feeds, with the time of their last sample. */
export function WatchSilent({
  feeds,
  count,
  heard,
}: {
  readonly feeds: readonly Metric[];
  /** Total number; the list is limited. */
  readonly count: number;
  /** Whether any sample has come in. */
  readonly heard: boolean;
}) {
  const palette = usePalette();
  const router = useRouter();
  return (
    <Section title="Silent feeds" aside={formatNumber(count, 0)} closed={false}>
      {feeds.map((feed, i) => (
        <Row
          key={feed.id}
          title={`${feed.assetName}, ${feed.name.toLowerCase()}`}
          second={`${feed.plantName}, last heard ${siteMoment(feed.last!.t, feed.zone)}`}
          left={<LampWord level="nodata" />}
          right={
            <Words as="body" colour={palette.ink2}>
              {formatLength(feed.health.quietMs ?? 0)}
            </Words>
          }
          onPress={() => router.push(`/data/metrics/${feed.id}`)}
          last={i === feeds.length - 1}
        />
      ))}
      {count > feeds.length && (
        <Button
          variant="quiet"
          label={`All ${formatNumber(count, 0)} silent feeds`}
          onPress={() => router.push('/data/feeds')}
        />
      )}
      {count === 0 && (
        <Words as="body" colour={palette.ink2} style={{ paddingVertical: 8 }}>
          {heard ? 'All feeds are reporting.' : 'No feeds yet.'}
        </Words>
      )}
    </Section>
  );
}
