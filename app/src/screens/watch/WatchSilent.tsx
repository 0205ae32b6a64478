import { useRouter } from 'expo-router';
import { formatLength, type Metric } from '@vivid-beacon/core';
import { LampWord } from '../../components/LampWord';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { siteMoment } from '../siteMoment';

/** Feeds that went quiet, and since when. */
export function WatchSilent({ feeds }: { readonly feeds: readonly Metric[] }) {
  const palette = usePalette();
  const router = useRouter();
  return (
    <Section title="Silent feeds" aside={String(feeds.length)} closed={false}>
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
          onPress={() => router.push('/data')}
          last={i === feeds.length - 1}
        />
      ))}
      {feeds.length === 0 && (
        <Words as="body" colour={palette.ink2} style={{ paddingVertical: 8 }}>
          Every feed reports.
        </Words>
      )}
    </Section>
  );
}
