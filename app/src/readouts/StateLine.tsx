import { StyleSheet, View } from 'react-native';
import { distanceOf, formatNumber, LEVEL_WORDS, type TargetBand } from '@vivid-beacon/core';
import type { Part } from '../boards/parts';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { wordColour } from '../theme/palette';
import { usePalette } from '../theme/useTheme';

/** What is told of a value's state. */
type Judged = Pick<Part, 'value' | 'level' | 'coverage' | 'partial'>;

interface StateLineProps {
  readonly part: Judged;
  readonly band: TargetBand | null;
  readonly decimals: number;
}

/** Lamp, word, and how far it is: "Breach, 1.3 over limit". */
export function StateLine({ part: reading, band, decimals }: StateLineProps) {
  const palette = usePalette();
  return (
    <View style={styles.line}>
      {(band || reading.level === 'nodata') && <Lamp level={reading.level} size={20} />}
      <View style={styles.words}>
        <Words
          as="bodyStrong"
          colour={band || reading.level === 'nodata' ? wordColour(palette, reading.level) : palette.ink2}
        >
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

/** The state in words, for the line and for screen readers. */
export function stateWords(reading: Judged, band: TargetBand | null, decimals: number): string {
  if (reading.level === 'nodata') {
    return reading.value === null
      ? LEVEL_WORDS.nodata
      : `No data, coverage only ${formatNumber(reading.coverage * 100, 0)} %`;
  }
  if (!band || reading.value === null) return 'no target band';
  const distance = distanceOf(band, reading.value);
  const word = LEVEL_WORDS[reading.level];
  if (!distance) return word;
  const onTarget = distance.words.endsWith('target') && Number(distance.by.toFixed(decimals)) === 0;
  return onTarget
    ? `${word}, on target`
    : `${word}, ${formatNumber(distance.by, decimals)} ${distance.words}`;
}

const styles = StyleSheet.create({
  line: { flexDirection: 'row', gap: 6, alignItems: 'center', justifyContent: 'center' },
  words: { flexShrink: 1 },
});
