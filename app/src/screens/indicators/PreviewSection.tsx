import { StyleSheet, View } from 'react-native';
import { displayUnit, type IndicatorDefinition } from '@vivid-beacon/core';
import type { useIndicatorPreview } from '../../api/indicators';
import { ReadingLamp } from '../../components/ReadingLamp';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { shownNumber, shownValue } from './indicatorWords';
import { PastColumns } from './PastColumns';

interface PreviewSectionProps {
  readonly preview: ReturnType<typeof useIndicatorPreview>;
  readonly definition: IndicatorDefinition;
}

/** The current value and the past of the definition. */
export function PreviewSection({ preview, definition }: PreviewSectionProps) {
  const palette = usePalette();
  const { data, error, isPlaceholderData } = preview;
  if (error) {
    return (
      <View role="alert">
        <Words as="body" colour={palette.breachT}>
          {error.message}
        </Words>
      </View>
    );
  }
  if (!data) return null;
  const { reading, target, band } = data;
  return (
    <View style={[styles.preview, { backgroundColor: palette.well }, isPlaceholderData && styles.old]}>
      <View style={styles.now}>
        <ReadingLamp reading={reading} judged={band !== null} />
        <View style={styles.value}>
          <Words as="hero">{shownNumber(reading.value, definition)}</Words>
          <Words as="second" colour={palette.ink2}>
            {[
              displayUnit(reading.unit, definition.display),
              target === null
                ? 'no target holds now'
                : `target ${shownValue(target, reading.unit, definition)}`,
            ]
              .filter(Boolean)
              .join(', ')}
          </Words>
        </View>
      </View>
      <PastColumns past={data} name={definition.name} display={definition.display} />
    </View>
  );
}

const styles = StyleSheet.create({
  preview: { padding: 14, gap: 8 },
  old: { opacity: 0.6 },
  now: { flexDirection: 'row', alignItems: 'center', gap: 12 },
  value: { flex: 1, minWidth: 0 },
});
