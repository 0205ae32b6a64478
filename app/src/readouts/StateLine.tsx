import { StyleSheet, View } from 'react-native';
import type { TargetBand } from '@vivid-beacon/core';
import { isLit, stateWords, type JudgedValue } from '@vivid-beacon/core/src/boards';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { wordInk } from '@vivid-beacon/core/src/drawing/palette';
import { usePalette } from '../theme/useTheme';

interface StateLineProps {
  readonly part: JudgedValue;
  readonly band: TargetBand | null;
  readonly decimals: number;
}

/** Lamp, word, and how far it is: "Breach, 1.3 over limit". */
export function StateLine({ part: reading, band, decimals }: StateLineProps) {
  const palette = usePalette();
  const lit = isLit(reading, band);
  return (
    <View style={styles.line}>
      {lit && <Lamp level={reading.level} size={20} />}
      <View style={styles.words}>
        <Words as="bodyStrong" colour={lit ? palette[wordInk(reading.level)] : palette.ink2}>
          {stateWords(reading, band, decimals)}
        </Words>
        {reading.partial && reading.value !== null && (
          <Words as="caption" colour={palette.ink2}>
            unfinished period
          </Words>
        )}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', gap: 6, alignItems: 'center', justifyContent: 'center' },
  words: { flexShrink: 1 },
});
