import { StyleSheet, View } from 'react-native';
import { formatNumber, formatValue } from '@vivid-beacon/core';
import type { RehearsedLimit } from '@vivid-beacon/core/src/alarming';
import { Button } from '../../components/Button';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface OnceAWeekProps {
  readonly found: RehearsedLimit | null;
  readonly unit: string;
  readonly decimals: number;
  readonly onTake: (limit: number) => void;
}

/** The limit that would give at most one alarm a week, one tap away. */
export function OnceAWeek({ found, unit, decimals, onTake }: OnceAWeekProps) {
  const palette = usePalette();
  if (!found) return null;
  const { limit, fires } = found;
  return (
    <View style={styles.row}>
      <Words as="body" colour={palette.ink2} style={styles.words}>
        {`At most one a week at ${formatValue(limit, unit, decimals)}: ${formatNumber(fires, 0)} in these days.`}
      </Words>
      <Button
        variant="quiet"
        label="Take it"
        name="Take the limit of at most one a week"
        onPress={() => onTake(limit)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 12, paddingTop: 4 },
  words: { flex: 1 },
});
