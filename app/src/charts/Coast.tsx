import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import Svg from 'react-native-svg';
import { LEVEL_WORDS, type Level } from '@vivid-beacon/core';
import { Chequer } from '../components/Chequer';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { useWidth } from '../hooks/useWidth';
import { wordInk } from '@vivid-beacon/core/src/drawing/palette';
import { usePalette } from '../theme/useTheme';
import { Land } from './Land';
import { Lighthouse } from './Lighthouse';

export interface CoastLight {
  readonly id: string;
  readonly name: string;
  readonly level: Level;
  /** The worst state and its count in words: "2 breaches". */
  readonly words: string;
}

interface CoastProps {
  readonly lights: readonly CoastLight[];
  readonly chosen: string | null;
  readonly onChoose: (id: string | null) => void;
}

const HEIGHT = 150;
const MIN_LIGHT_WIDTH = 96;

/** One light for each plant; choosing one filters the page to it. More than fit scroll sideways. */
export function Coast({ lights, chosen, onChoose }: CoastProps) {
  const palette = usePalette();
  const [width, onLayout] = useWidth();
  const each = Math.max(MIN_LIGHT_WIDTH, width / Math.max(1, lights.length));
  const whole = each * lights.length;
  return (
    <View onLayout={onLayout}>
      <ScrollView horizontal showsHorizontalScrollIndicator={false} scrollEnabled={whole > width}>
        <View style={{ width: whole }}>
          {width > 0 && (
            <Svg width={whole} height={HEIGHT} aria-hidden>
              <Land width={whole} horizon={HEIGHT - 12} sea={12} />
              {lights.map(({ id, level }, i) => (
                <Lighthouse
                  key={id}
                  x={each * (i + 0.5)}
                  foot={HEIGHT - 12}
                  height={[96, 116, 90][i % 3]}
                  level={level}
                  reach={Math.min(190, each * 0.72)}
                />
              ))}
            </Svg>
          )}
          <View style={[styles.names, { backgroundColor: palette.water }]} role="group" aria-label="Plants">
            {lights.map(({ id, name, level, words }) => (
              <Pressable
                key={id}
                role="button"
                aria-pressed={id === chosen}
                aria-label={`${name}: ${LEVEL_WORDS[level]}, ${words}. Show only this plant`}
                onPress={() => onChoose(id === chosen ? null : id)}
                style={[styles.light, { width: each }]}
              >
                <View style={styles.name}>
                  <Words as="readoutTitle" lines={2}>
                    {name}
                  </Words>
                  <Chequer shown={id === chosen} />
                </View>
                <View style={styles.state}>
                  <Lamp level={level} size={17} />
                  <Words as="bodyStrong" colour={palette[wordInk(level)]}>
                    {words}
                  </Words>
                </View>
              </Pressable>
            ))}
          </View>
        </View>
      </ScrollView>
    </View>
  );
}

const styles = StyleSheet.create({
  names: { flexDirection: 'row', paddingBottom: 8, paddingTop: 2 },
  light: { alignItems: 'center', gap: 2, minHeight: 52 },
  name: { maxWidth: '100%' },
  state: { flexDirection: 'row', gap: 5, alignItems: 'center' },
});
