import { Pressable, StyleSheet, View } from 'react-native';
import { formatValue, levelOf, type TargetBand } from '@vivid-beacon/core';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { newestDrawn } from '@vivid-beacon/core/src/boards';
import type { TrendSeries } from '@vivid-beacon/core/src/pictures';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';

/** The lines of a trend by name, with their newest values, where there is no room at their ends; a tap focuses one. */
export function TrendLegend({
  series,
  cumulative,
  bands,
}: {
  readonly series: readonly TrendSeries[];
  /** Whether the values are running totals. */
  readonly cumulative: boolean;
  /** What judges the newest values of the first and of the second unit; null = nothing. */
  readonly bands: readonly (TargetBand | null)[];
}) {
  const palette = usePalette();
  const { focus, onFocus } = useBoardFilters();
  const subject = series.find(({ assetId }) => focus !== null && assetId === focus) ?? series[0];
  const units = [...new Set(series.map(({ answer }) => answer.unit))];
  return (
    <View style={styles.legend}>
      {series.map((each) => {
        const last = newestDrawn(each, cumulative);
        const chosen = each.key === subject.key;
        const band = bands[units.indexOf(each.answer.unit)];
        const level = band ? levelOf(band, last) : 'clear';
        return (
          <Pressable
            key={each.key}
            role="button"
            aria-pressed={chosen}
            disabled={each.assetId === null}
            onPress={() => each.assetId && onFocus(each.assetId)}
            style={styles.entry}
          >
            <View
              style={[
                styles.key,
                { backgroundColor: chosen ? palette.ink : palette.bar, height: chosen ? 3 : 2 },
              ]}
            />
            {(level === 'breach' || level === 'caution') && <Lamp level={level} size={18} />}
            <Words as={chosen ? 'bodyStrong' : 'body'}>{each.name}</Words>
            <Words as="second" colour={palette.ink2}>
              {formatValue(last, each.answer.unit, 1)}
            </Words>
          </Pressable>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  legend: { flexDirection: 'row', flexWrap: 'wrap', columnGap: 16 },
  entry: { flexDirection: 'row', alignItems: 'center', gap: 6, minHeight: 44 },
  key: { width: 18 },
});
