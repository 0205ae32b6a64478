import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatNumber, windowWords, type IndicatorReading, type Watch } from '@vivid-beacon/core';
import { StraightGauge } from '../../charts/StraightGauge';
import { Button } from '../../components/Button';
import { isThin, levelWord } from '@vivid-beacon/core/src/readouts/stateWords';
import { ReadingLamp } from '../../components/ReadingLamp';
import { NumberButton } from '../../components/NumberButton';
import { ProvenanceTray } from '../../components/ProvenanceTray';
import { Rule } from '../../components/Rule';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';
import { useWidth } from '../../hooks/useWidth';
import { usePalette } from '../../theme/useTheme';

const SHOWN_FIRST = 5;

/** Indicators, the worst first. Every number opens how it was made. */
export function WatchIndicators({
  indicators,
  count,
  plants,
}: {
  readonly indicators: readonly IndicatorReading[];
  /** Total number; only the worst are listed. */
  readonly count: number;
  readonly plants: Watch['plants'];
}) {
  const [all, setAll] = useState(false);
  const router = useRouter();
  const more =
    count > indicators.length ? `Show the worst ${indicators.length}` : `Show all ${indicators.length}`;
  const shown = all ? indicators : indicators.slice(0, SHOWN_FIRST);
  return (
    <Section title="Worst indicators" aside={`${formatNumber(count, 0)} in all`} closed={false}>
      {shown.map((indicator) => (
        <IndicatorRow
          key={indicator.id}
          indicator={indicator}
          plant={plants.find(({ id }) => id === indicator.plantId)?.name ?? ''}
        />
      ))}
      {indicators.length > SHOWN_FIRST && (
        <View style={styles.more}>
          <Button variant="quiet" label={all ? 'Show the worst only' : more} onPress={() => setAll(!all)} />
        </View>
      )}
      <Button variant="quiet" label="All indicators" onPress={() => router.push('/indicators')} />
    </Section>
  );
}

function IndicatorRow({
  indicator,
  plant,
}: {
  readonly indicator: IndicatorReading;
  readonly plant: string;
}) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const [open, setOpen] = useState(false);
  const { name, assetName, reading, band, decimals } = indicator;
  return (
    <View>
      <View style={styles.row}>
        <ReadingLamp reading={reading} judged={band !== null} />
        <View style={styles.middle}>
          <View style={styles.head}>
            <View style={styles.name}>
              <Words as="rowTitle">{name}</Words>
              <Words as="second" colour={palette.ink2}>
                {`${plant}, ${name.includes(assetName) ? '' : `${assetName.toLowerCase()}, `}${windowWords(indicator.window).replace('the ', '')}`}
              </Words>
            </View>
            <NumberButton
              text={reading.value === null ? '–' : formatNumber(reading.value, decimals)}
              unit={reading.unit}
              name={`${[name, levelWord(reading, band !== null)].filter(Boolean).join(', ')}. How it was made`}
              faint={isThin(reading)}
              onPress={() => setOpen(true)}
            />
          </View>
          <View onLayout={onLayout}>
            <StraightGauge
              width={width}
              value={reading.value}
              level={reading.level}
              band={band}
              reference={reading.previous}
              decimals={decimals}
            />
          </View>
        </View>
      </View>
      <Rule />
      <ProvenanceTray
        title={name}
        reading={reading}
        decimals={decimals}
        open={open}
        onClose={() => setOpen(false)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: 12, paddingVertical: 8, alignItems: 'flex-start' },
  middle: { flex: 1, minWidth: 0 },
  head: { flexDirection: 'row', gap: 8, alignItems: 'flex-start' },
  name: { flex: 1, minWidth: 0 },
  more: { paddingTop: 12 },
});
