import { StyleSheet, View } from 'react-native';
import {
  BUCKET_WORDS,
  displayUnit,
  formatNumber,
  LEVEL_WORDS,
  type IndicatorDefinition,
  type IndicatorPast,
  type JudgedPeriod,
} from '@vivid-beacon/core';
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
  const shares = pastShares(data.periods, data.bucket);
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
      {shares && (
        <Words as="second" colour={palette.ink2}>
          {shares}
        </Words>
      )}
      <PastColumns past={data} name={definition.name} display={definition.display} />
    </View>
  );
}

/** What the definition makes of its past: "Of the 30 days before: Clear 77 %, Caution 17 %, Breach 7 %." */
function pastShares(periods: readonly JudgedPeriod[], bucket: IndicatorPast['bucket']): string | null {
  const judged = periods.filter(({ level }) => level !== 'nodata');
  if (judged.length === 0) return null;
  const share = (level: JudgedPeriod['level']): string => {
    const count = judged.filter((period) => period.level === level).length;
    return `${LEVEL_WORDS[level]} ${formatNumber((100 * count) / judged.length, 0)} %`;
  };
  const what = judged.length === 1 ? BUCKET_WORDS[bucket] : `${judged.length} ${BUCKET_WORDS[bucket]}s`;
  return `Of the ${what} judged in its past: ${share('clear')}, ${share('caution')}, ${share('breach')}.`;
}

const styles = StyleSheet.create({
  preview: { padding: 14, gap: 8 },
  old: { opacity: 0.6 },
  now: { flexDirection: 'row', alignItems: 'center', gap: 12 },
  value: { flex: 1, minWidth: 0 },
});
