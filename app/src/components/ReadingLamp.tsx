import { StyleSheet, View } from 'react-native';
import type { Level } from '@vivid-beacon/core';
import { isThin, levelWord } from '@vivid-beacon/core/src/readouts/stateWords';
import { usePalette } from '../theme/useTheme';
import { LampWord } from './LampWord';
import { Words } from './Words';

interface ReadingLampProps {
  readonly reading: { readonly value: number | null; readonly level: Level; readonly coverage: number };
  /** Whether a band holds; without one nothing is Clear. */
  readonly judged: boolean;
}

/** The lamp of a value with its word; of a value that is not judged no lamp, but its coverage. */
export function ReadingLamp({ reading, judged }: ReadingLampProps) {
  const palette = usePalette();
  const word = levelWord(reading, judged);
  if (reading.value === null || (judged && !isThin(reading))) {
    return <LampWord level={reading.level} word={word} />;
  }
  return (
    <View style={styles.box}>
      <Words as="caption" colour={palette.ink2}>
        {word || 'no band'}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({ box: { width: 56, alignItems: 'center' } });
