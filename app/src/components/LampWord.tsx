import { StyleSheet, View } from 'react-native';
import { LEVEL_WORDS, type Level } from '@vivid-beacon/core';
import { wordInk } from '@vivid-beacon/core/src/drawing/palette';
import { usePalette } from '../theme/useTheme';
import type { AlarmMark } from '@vivid-beacon/core/src/drawing/lampScene';
import { Lamp } from './Lamp';
import { Words } from './Words';

/** A lamp with its word under it, for the left edge of a row. */
export function LampWord({
  level,
  mark,
  word,
  onWater = false,
}: {
  readonly level: Level;
  readonly mark?: AlarmMark;
  readonly word?: string;
  /** On a chosen row, where the faint ink of No data is too faint to read. */
  readonly onWater?: boolean;
}) {
  const palette = usePalette();
  return (
    <View style={styles.box}>
      <Lamp level={level} size={22} mark={mark} />
      <Words as="caption" colour={onWater && level === 'nodata' ? palette.ink2 : palette[wordInk(level)]}>
        {word ?? LEVEL_WORDS[level]}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  box: { width: 56, alignItems: 'center', gap: 2 },
});
