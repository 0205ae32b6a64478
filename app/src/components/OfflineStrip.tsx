import { formatTime } from '@vivid-beacon/core';
import { StyleSheet, View } from 'react-native';
import { useConnectionStore } from '../stores/connectionStore';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

/** Says that the connection is lost, and how recent the shown data is. */
export function OfflineStrip() {
  const palette = usePalette();
  const lostAt = useConnectionStore((state) => state.lostAt);
  const until =
    lostAt === null
      ? ''
      : ` Showing readings up to ${formatTime(lostAt, Intl.DateTimeFormat().resolvedOptions().timeZone)}.`;
  return (
    <View
      role="status"
      style={[styles.strip, { backgroundColor: palette.well, borderBottomColor: palette.line }]}
    >
      <Words as="body" colour={palette.ink2}>
        {`No connection.${until}`}
      </Words>
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { paddingHorizontal: 20, paddingVertical: 8, borderBottomWidth: 1 },
});
