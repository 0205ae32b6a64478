import { Pressable, StyleSheet, View } from 'react-native';
import { Path, Svg } from 'react-native-svg';
import { formatValue, levelOf, type TargetBand } from '@vivid-beacon/core';
import { decimalsOfLine, LEGEND_KEY, newestDrawn } from '@vivid-beacon/core/src/boards';
import { linePattern, type TrendSeries } from '@vivid-beacon/core/src/pictures';
import { Lamp } from '../components/Lamp';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';

/** The lines of a trend by name and pattern, with their newest values, where there is no room at their ends; a tap chooses one. */
export function TrendLegend({
  series,
  cumulative,
  decimals,
  bands,
  chosen,
  onChoose,
}: {
  readonly series: readonly TrendSeries[];
  /** Whether the values are running totals. */
  readonly cumulative: boolean;
  /** Of the trend. */
  readonly decimals: number;
  /** What judges the newest values of the first and of the second unit; null = nothing. */
  readonly bands: readonly (TargetBand | null)[];
  /** Key of the line in ink. */
  readonly chosen: string;
  readonly onChoose: (key: string) => void;
}) {
  const palette = usePalette();
  const units = [...new Set(series.map(({ answer }) => answer.unit))];
  return (
    <View style={styles.legend}>
      {series.map((each, i) => {
        const last = newestDrawn(each, cumulative);
        const isChosen = each.key === chosen;
        const band = bands[units.indexOf(each.answer.unit)];
        const level = band ? levelOf(band, last) : 'clear';
        return (
          <Pressable
            key={each.key}
            role="button"
            aria-pressed={isChosen}
            onPress={() => onChoose(each.key)}
            style={styles.entry}
          >
            <Svg width={LEGEND_KEY} height={4}>
              <Path
                d={`M0 2H${LEGEND_KEY}`}
                stroke={isChosen ? palette.ink : palette.bar}
                strokeWidth={isChosen ? 3 : 2}
                strokeDasharray={linePattern(each.pattern ?? i)}
              />
            </Svg>
            {(level === 'breach' || level === 'caution') && <Lamp level={level} size={18} />}
            <Words as={isChosen ? 'bodyStrong' : 'body'}>{each.name}</Words>
            <Words as="second" colour={palette.ink2}>
              {formatValue(last, each.answer.unit, decimalsOfLine(each, { series, decimals }))}
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
});
