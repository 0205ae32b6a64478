import { Pressable, StyleSheet, View } from 'react-native';
import { formatNumber, formatValue, type DataOf } from '@vivid-beacon/core';
import { stateWords, onSharedScale } from '@vivid-beacon/core/src/boards';
import { tankScene } from '@vivid-beacon/core/src/pictures';
import { SceneView } from '../charts/SceneView';
import { NumberButton } from '../components/NumberButton';
import { Words } from '../components/Words';
import type { DrawProps } from './drawProps';
import { useOpenPlace } from './useOpenPlace';
import { StateLine } from './StateLine';

/** Tanks side by side on one scale. */
export function TankReadout({ data, title, onOpen }: DrawProps<DataOf<'tank'>>) {
  const { values, readout, decimals } = data;
  const { band } = readout;
  const openPlace = useOpenPlace(readout);
  return (
    <View style={styles.tanks}>
      {values.map((part) => (
        <View key={part.key} style={styles.one}>
          <Pressable
            role="button"
            aria-label={`${values.length === 1 ? title : part.name}: ${formatValue(part.value, part.unit, decimals)}, ${stateWords(part, band, decimals)}. ${openPlace ? `Open ${readout.link}` : 'How it was made'}`}
            onPress={openPlace ?? (() => onOpen(part))}
          >
            <SceneView scene={tankScene(onSharedScale(data, part))} />
          </Pressable>
          {openPlace ? (
            <NumberButton
              text={part.value === null ? '–' : formatNumber(part.value, decimals)}
              unit={part.unit}
              name={`${part.name}. How it was made`}
              onPress={() => onOpen(part)}
            />
          ) : (
            <Words as="figure">{formatValue(part.value, part.unit, decimals)}</Words>
          )}
          {values.length > 1 && <Words as="rowTitle">{part.name}</Words>}
          <StateLine part={part} band={band} decimals={decimals} />
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  tanks: { flexDirection: 'row', flexWrap: 'wrap', justifyContent: 'space-evenly', gap: 12 },
  one: { alignItems: 'center', gap: 2, maxWidth: 180 },
});
