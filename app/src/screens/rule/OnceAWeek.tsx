import { StyleSheet, View } from 'react-native';
import { formatNumber, formatValue, isFromBelow, type AlarmTest } from '@vivid-beacon/core';
import type { RehearsedLimit } from '@vivid-beacon/core/src/alarming';
import { Button } from '../../components/Button';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface OnceAWeekProps {
  readonly found: RehearsedLimit | null;
  readonly test: AlarmTest;
  readonly unit: string;
  readonly decimals: number;
  readonly onTake: (limit: number) => void;
}

/** The limit that would give about one alarm a week, one tap away. */
export function OnceAWeek({ found, test, unit, decimals, onTake }: OnceAWeekProps) {
  const palette = usePalette();
  if (!found) return null;
  // Rounded towards fewer alarms: up, or down where the rule watches from below.
  const step = 10 ** decimals;
  const round = isFromBelow(test) ? Math.floor : Math.ceil;
  const limit = Number((round(found.limit * step) / step).toFixed(decimals));
  return (
    <View style={styles.row}>
      <Words as="body" colour={palette.ink2} style={styles.words}>
        {`About one a week at ${formatValue(limit, unit, decimals)}: ${formatNumber(found.fires, 0)} in these days.`}
      </Words>
      <Button
        variant="quiet"
        label="Take it"
        name="Take the limit of about one a week"
        onPress={() => onTake(limit)}
      />
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 12, paddingTop: 4 },
  words: { flex: 1 },
});
