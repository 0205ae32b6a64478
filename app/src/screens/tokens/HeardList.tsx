import { useState } from 'react';
import { View } from 'react-native';
import { formatMoment, formatNumber, namesByRule, type HeardSeries, type PushRule } from '@vivid-beacon/core';
import { useMetricsById } from '../../api/catalogue';
import { useHeard, useMapSeries } from '../../api/pushTokens';
import { AssetPick } from '../../assets/AssetPick';
import { MetricPick } from '../../assets/MetricPick';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Refusal } from '../../components/Refusal';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';

interface HeardListProps {
  readonly tokenId: string;
  readonly rule: PushRule;
}

const SHOWN_AT_ONCE = 30;
const TAKES_SAMPLES = { origin: 'samples' } as const;
const DEFAULT_INTERVAL_MS = 60_000;

/** Series heard with a token: those without a metric wait here, with their last value, until they are mapped. */
export function HeardList({ tokenId, rule }: HeardListProps) {
  const palette = usePalette();
  const heard = useHeard(tokenId);
  const now = useNow();
  const [open, setOpen] = useState<HeardSeries | null>(null);
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const zone = deviceZone();
  const { byId: metrics, whole } = useMetricsById(
    (heard.data ?? []).slice(0, shown).map(({ metricId }) => metricId),
  );
  const fed = (id: string): string => {
    const metric = metrics.get(id);
    if (!metric && !whole) return 'a metric';
    return metric ? `${metric.name}, ${metric.assetName}, ${metric.plantName}` : 'a removed metric';
  };
  return (
    <QueryResult query={heard} reading="Loading the received series">
      {(rows) => {
        const waiting = rows.filter(({ metricId }) => metricId === null).length;
        return (
          <Section title="Received series" aside={`${waiting} not mapped, ${rows.length - waiting} mapped`}>
            {rows.length === 0 && (
              <Words as="body" colour={palette.ink2}>
                No exposition text with labels has come with this token yet.
              </Words>
            )}
            {rows.slice(0, shown).map((row, i) => (
              <Row
                key={row.series}
                title={row.series}
                second={
                  row.metricId === null
                    ? `last value ${row.lastValue ?? 'none'}, ${formatMoment(row.lastHeard, zone, now)}; ${formatNumber(row.heard, 0)} ${row.heard === 1 ? 'sample' : 'samples'} not stored`
                    : `feeds ${fed(row.metricId)}`
                }
                right={
                  <Button
                    variant="quiet"
                    label={row.metricId === null ? 'Map' : 'Change'}
                    name={`${row.metricId === null ? 'Map' : 'Change'} ${row.series}`}
                    onPress={() => setOpen(row)}
                  />
                }
                last={i === Math.min(shown, rows.length) - 1}
              />
            ))}
            {rows.length > shown && (
              <Button variant="quiet" label="Show more" onPress={() => setShown(shown + SHOWN_AT_ONCE * 2)} />
            )}
            <MapTray
              key={open?.series ?? ''}
              tokenId={tokenId}
              series={open}
              rule={rule}
              onClose={() => setOpen(null)}
            />
          </Section>
        );
      }}
    </QueryResult>
  );
}

function MapTray({
  tokenId,
  series,
  rule,
  onClose,
}: HeardListProps & { readonly series: HeardSeries | null; readonly onClose: () => void }) {
  const map = useMapSeries(tokenId);
  const [way, setWay] = useState<'existing' | 'new'>('existing');
  if (!series) return null;
  const named = namesByRule(series, rule);
  const name = named?.metric ?? series.series;
  const send = (mapping: { metricId?: string | null; assetId?: string }): void =>
    map.mutate(
      {
        series: series.series,
        metricId: mapping.metricId,
        make: mapping.assetId
          ? {
              assetId: mapping.assetId,
              name: name.slice(0, 200),
              unit: '',
              kind: 'level',
              intervalMs: DEFAULT_INTERVAL_MS,
            }
          : undefined,
      },
      { onSuccess: onClose },
    );
  return (
    <Tray title={series.series} open onClose={onClose}>
      <WordRow
        name="It feeds"
        options={[
          { value: 'existing' as const, label: 'Existing metric' },
          { value: 'new' as const, label: 'New metric of an asset' },
        ]}
        chosen={way}
        onChoose={setWay}
      />
      <Refusal of={map} />
      {way === 'existing' ? (
        <MetricPick
          name="Metric"
          maxHeight={320}
          filter={TAKES_SAMPLES}
          chosen={series.metricId}
          onChoose={({ id }) => send({ metricId: id })}
        />
      ) : (
        <AssetPick
          name={`Asset that gets the metric “${name}”`}
          maxHeight={320}
          chosen={null}
          onChoose={({ id }) => send({ assetId: id })}
        />
      )}
      {series.metricId !== null && (
        <View>
          <Button variant="quiet" label="Unmap it" onPress={() => send({ metricId: null })} />
        </View>
      )}
    </Tray>
  );
}
