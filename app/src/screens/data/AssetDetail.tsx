import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatValue, type Asset, type Metric } from '@vivid-beacon/core';
import { useAssetsById, useMetricsOf } from '../../api/catalogue';
import { useRemoveAsset } from '../../api/dataChanges';
import { usePerson } from '../../api/session';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { LampWord } from '../../components/LampWord';
import { RemoveThing } from '../../components/RemoveThing';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { mayAct, mayBuild } from '../../api/mayAct';
import { AssetForm } from './AssetForm';
import { feedRank, feedSentence, LEVEL_OF_FEED } from './feedWords';
import { MetricForm } from './MetricForm';
import { ReferenceForm } from './ReferenceForm';
import { StopForm } from './StopForm';

interface AssetDetailProps {
  readonly assetId: string;
  /** Shows name and path above; a page of its own has them in its head. */
  readonly headed?: boolean;
}

type Open = 'edit' | 'below' | 'metric' | 'reference' | 'stop' | null;

const ORIGIN_WORDS = { samples: 'from samples', derived: 'derived', reference: 'by period' } as const;

/** One asset: facts about it, its metrics, and what can be done with it. */
export function AssetDetail({ assetId, headed = false }: AssetDetailProps) {
  const palette = usePalette();
  const { byId, whole, error, again } = useAssetsById([assetId]);
  const metrics = useMetricsOf(assetId);
  const asset = byId.get(assetId);
  return (
    <QueryResult
      query={{ data: whole ? byId : undefined, error, refetch: again }}
      reading="Loading the asset"
    >
      {() =>
        asset ? (
          <QueryResult query={metrics} reading="Loading metrics">
            {(rows) => <Detail asset={asset} metrics={rows} headed={headed} />}
          </QueryResult>
        ) : (
          <Words as="body" colour={palette.ink2}>
            This asset no longer exists.
          </Words>
        )
      }
    </QueryResult>
  );
}

function Detail({
  asset,
  metrics,
  headed,
}: {
  readonly asset: Asset;
  readonly metrics: readonly Metric[];
  readonly headed: boolean;
}) {
  const assetId = asset.id;
  const palette = usePalette();
  const router = useRouter();
  const person = usePerson();
  const build = mayBuild(person, asset.plantId);
  const remove = useRemoveAsset();
  const [open, setOpen] = useState<Open>(null);
  // Each kind in the order in which the server gives them.
  const own = [...metrics].sort((a, b) => feedRank(a) - feedRank(b));
  const facts = Object.entries(asset.attributes);
  const close = (): void => setOpen(null);
  return (
    <View>
      {headed && (
        <View style={styles.head}>
          <Words as="pageTitle" heading={2}>
            {asset.name}
          </Words>
          {asset.parentId !== null && (
            <Words as="second" colour={palette.ink2}>
              {asset.title.split(' / ').slice(0, -1).join(' / ')}
            </Words>
          )}
        </View>
      )}
      <Words as="body" colour={palette.ink2}>
        {`${asset.kind}, time of ${asset.zone}${asset.ownZone === null ? ' (inherited)' : ''}`}
      </Words>
      {facts.length > 0 && (
        <View style={styles.facts}>
          {facts.map(([name, value]) => (
            <View key={name} style={styles.fact}>
              <Words as="second" colour={palette.ink2}>
                {name}
              </Words>
              <Words as="bodyStrong">{String(value)}</Words>
            </View>
          ))}
        </View>
      )}
      <View style={styles.buttons}>
        {mayAct(person, asset.plantId) && <Button label="Enter a stop" onPress={() => setOpen('stop')} />}
        {build && <Button label="Edit asset" variant="quiet" onPress={() => setOpen('edit')} />}
        {build && <Button label="Add below" variant="quiet" onPress={() => setOpen('below')} />}
        {build && (
          <RemoveThing
            what="asset"
            id={assetId}
            name={asset.name}
            words="It leaves every list. What was measured there, its stops and its closed flags are kept: it can be restored under Data, Removed."
            removal={remove}
            onGone={() => router.navigate('/data')}
          />
        )}
      </View>
      <Section title="Metrics" aside={String(own.length)}>
        {own.map((metric, i) => (
          <Row
            key={metric.id}
            title={metric.name}
            second={`${metric.kind}, ${ORIGIN_WORDS[metric.origin]} · ${feedSentence(metric)}`}
            left={
              metric.origin === 'samples' ? (
                <LampWord level={LEVEL_OF_FEED[metric.health.state]} word=" " />
              ) : (
                <View style={styles.noLamp} />
              )
            }
            right={
              metric.origin === 'samples' ? (
                <Words as="figure">{formatValue(metric.last?.v ?? null, metric.unit, metric.decimals)}</Words>
              ) : (
                <Words as="body" colour={palette.ink2}>
                  {metric.unit}
                </Words>
              )
            }
            onPress={() => router.push(`/data/metrics/${metric.id}`)}
            last={i === own.length - 1}
          />
        ))}
        {own.length === 0 && (
          <Words as="body" colour={palette.ink2}>
            Nothing is measured here yet.
          </Words>
        )}
        {build && (
          <View style={styles.add}>
            <Words as="second" colour={palette.ink2}>
              Add a metric
            </Words>
            <WordRow
              name="Add a metric"
              options={[
                { value: 'metric', label: 'from samples' },
                { value: 'derived', label: 'derived from others' },
                { value: 'reference', label: 'by period' },
              ]}
              chosen={null}
              onChoose={(what) =>
                what === 'derived'
                  ? router.push(`/data/derived/new?assetId=${assetId}`)
                  : setOpen(what as 'metric' | 'reference')
              }
            />
          </View>
        )}
      </Section>
      <Tray title={`Edit ${asset.name}`} open={open === 'edit'} onClose={close}>
        <AssetForm asset={asset} parentId={asset.parentId} onDone={close} />
      </Tray>
      <Tray title={`New asset below ${asset.name}`} open={open === 'below'} onClose={close}>
        <AssetForm asset={null} parentId={asset.id} onDone={close} />
      </Tray>
      <Tray title={`New metric of ${asset.name}`} open={open === 'metric'} onClose={close}>
        <MetricForm metric={null} assetId={assetId} onDone={close} />
      </Tray>
      <Tray title={`Reference series of ${asset.name}`} open={open === 'reference'} onClose={close}>
        <ReferenceForm
          assetId={assetId}
          onDone={(id) => {
            close();
            router.push(`/data/metrics/${id}`);
          }}
        />
      </Tray>
      <Tray title={`Stop of ${asset.name}`} open={open === 'stop'} onClose={close}>
        <StopForm stop={null} assetId={assetId} onDone={close} />
      </Tray>
    </View>
  );
}

const styles = StyleSheet.create({
  head: { gap: 2, paddingBottom: 4 },
  facts: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 28, rowGap: 6, paddingTop: 8 },
  fact: { gap: 1 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 12 },
  add: { paddingTop: 8 },
  noLamp: { width: 56 },
});
