import { useState } from 'react';
import { View } from 'react-native';
import {
  formatMoment,
  formatNumber,
  namesByRule,
  type Asset,
  type HeardSeries,
  type Metric,
  type PushRule,
} from '@vivid-beacon/core';
import { useHeard, useMapSeries } from '../../api/pushTokens';
import { Answer } from '../../components/Answer';
import { Button } from '../../components/Button';
import { PickList } from '../../components/PickList';
import { Refusal } from '../../components/Refusal';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';

interface HeardListProps {
  readonly tokenId: string;
  readonly rule: PushRule;
  readonly metrics: readonly Metric[];
  readonly assets: readonly Asset[];
}

const SHOWN_AT_ONCE = 30;
const USUAL_INTERVAL_MS = 60_000;

/** Series heard with a token: those without a metric wait here, with their last value, until they are mapped. */
export function HeardList({ tokenId, rule, metrics, assets }: HeardListProps) {
  const palette = usePalette();
  const heard = useHeard(tokenId);
  const now = useNow();
  const [open, setOpen] = useState<HeardSeries | null>(null);
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const fed = (id: string): string => {
    const metric = metrics.find((each) => each.id === id);
    return metric ? `${metric.name}, ${metric.assetName}, ${metric.plantName}` : 'a metric that is gone';
  };
  return (
    <Answer query={heard} reading="Reading what was heard">
      {(rows) => {
        const waiting = rows.filter(({ metricId }) => metricId === null).length;
        return (
          <Section title="Heard series" aside={`${waiting} not mapped, ${rows.length - waiting} mapped`}>
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
                    look="quiet"
                    label={row.metricId === null ? 'Map' : 'Change'}
                    name={`${row.metricId === null ? 'Map' : 'Change'} ${row.series}`}
                    onPress={() => setOpen(row)}
                  />
                }
                last={i === Math.min(shown, rows.length) - 1}
              />
            ))}
            {rows.length > shown && (
              <Button look="quiet" label="Show more" onPress={() => setShown(shown + SHOWN_AT_ONCE * 2)} />
            )}
            <MapTray
              key={open?.series ?? ''}
              tokenId={tokenId}
              series={open}
              rule={rule}
              metrics={metrics}
              assets={assets}
              onClose={() => setOpen(null)}
            />
          </Section>
        );
      }}
    </Answer>
  );
}

function MapTray({
  tokenId,
  series,
  rule,
  metrics,
  assets,
  onClose,
}: HeardListProps & { readonly series: HeardSeries | null; readonly onClose: () => void }) {
  const map = useMapSeries(tokenId);
  const [way, setWay] = useState<'existing' | 'new'>('existing');
  const takesSamples = metrics.filter(({ origin }) => origin === 'samples');
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
              intervalMs: USUAL_INTERVAL_MS,
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
        <PickList
          name="Metric"
          maxHeight={320}
          options={takesSamples.map(({ id, name: metric, assetName, plantName, unit }) => ({
            value: id,
            label: `${metric}, ${assetName}`,
            detail: [plantName, unit].filter(Boolean).join(' · '),
          }))}
          chosen={series.metricId}
          onChoose={(metricId) => send({ metricId })}
        />
      ) : (
        <PickList
          name={`Asset that gets the metric “${name}”`}
          maxHeight={320}
          options={assets.map(({ id, name: asset, kind, plantId }) => ({
            value: id,
            label: asset,
            detail: [assets.find((each) => each.id === plantId)?.name, kind].filter(Boolean).join(' · '),
          }))}
          chosen={null}
          onChoose={(assetId) => send({ assetId })}
        />
      )}
      {series.metricId !== null && (
        <View>
          <Button look="quiet" label="Let it wait again" onPress={() => send({ metricId: null })} />
        </View>
      )}
    </Tray>
  );
}
