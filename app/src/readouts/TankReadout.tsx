import { Pressable, StyleSheet, View } from 'react-native';
import { formatValue, type DataOf } from '@vivid-beacon/core';
import { isThin, stateWords, onSharedScale } from '@vivid-beacon/core/src/boards';
import { tankScene } from '@vivid-beacon/core/src/pictures';
import { SceneView } from '../charts/SceneView';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import type { DrawProps } from './drawProps';
import { StateLine } from './StateLine';

/** Tanks side by side on one scale. */
export function TankReadout({ data, title, onOpen }: DrawProps<DataOf<'tank'>>) {
  const { values, readout, decimals } = data;
  const { band } = readout;
  const palette = usePalette();
  return (
    <View style={styles.tanks}>
      {values.map((part) => (
        <View key={part.key} style={styles.one}>
          <Pressable
            role="button"
            aria-label={`${values.length === 1 ? title : part.name}: ${formatValue(part.value, part.unit, decimals)}, ${stateWords(part, band, decimals)}. How it was made`}
            onPress={() => onOpen(part)}
          >
            <SceneView scene={tankScene(onSharedScale(data, part))} />
          </Pressable>
          <Words as="figure" colour={isThin(part) ? palette.ink3 : undefined}>
            {formatValue(part.value, part.unit, decimals)}
          </Words>
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
