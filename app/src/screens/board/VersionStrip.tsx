import { StyleSheet, View } from 'react-native';
import { formatMoment, type Board, type WholeBoardVersion } from '@vivid-beacon/core';
import { useRestoreVersion } from '../../api/boards';
import { Button } from '../../components/Button';
import { Refusal } from '../../components/Refusal';
import { Words } from '../../components/Words';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { deviceZone } from '../deviceZone';

interface VersionStripProps {
  readonly board: Board;
  readonly version: WholeBoardVersion;
  /** Back to the board as it is now. */
  readonly onClose: () => void;
}

/** Says that an earlier version is shown, with today's numbers, and goes back to it. */
export function VersionStrip({ board, version, onClose }: VersionStripProps) {
  const palette = usePalette();
  const now = useNow();
  const restore = useRestoreVersion(board);
  const { revision, savedBy, savedAt, title } = version;
  const renamed = title === board.title ? '' : ` It was called ${title}.`;
  return (
    <View
      role="status"
      style={[styles.strip, { backgroundColor: palette.water, borderTopColor: palette.line }]}
    >
      <Words as="body">
        {`Version ${revision}, saved ${formatMoment(savedAt, deviceZone(), now)}${savedBy ? ` by ${savedBy}` : ''}.${renamed} The numbers are those of now.`}
      </Words>
      <View style={styles.buttons}>
        {board.mayChange && (
          <Button
            variant="primary"
            label="Go back to this version"
            disabled={restore.isPending}
            onPress={() => restore.mutate(revision, { onSuccess: onClose })}
          />
        )}
        <Button label="Show the board as it is" onPress={onClose} />
      </View>
      <Refusal of={restore} />
    </View>
  );
}

const styles = StyleSheet.create({
  strip: { paddingHorizontal: 20, paddingVertical: 10, gap: 8, borderTopWidth: 1 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
