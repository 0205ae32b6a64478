import { StyleSheet, View } from 'react-native';
import { useConnectionStore } from '../stores/connectionStore';
import { usePalette } from '../theme/useTheme';
import { Button } from './Button';
import { Words } from './Words';

/** Says that what is shown has changed because the person's rights have. */
export function RightsStrip() {
  const palette = usePalette();
  const { rightsChanged, actions } = useConnectionStore();
  if (!rightsChanged) return null;
  return (
    <View
      role="status"
      style={[styles.strip, { backgroundColor: palette.well, borderBottomColor: palette.line }]}
    >
      <Words as="body" style={styles.words}>
        An administrator has changed your rights. Pages show what you may see now.
      </Words>
      <Button variant="quiet" label="Dismiss" onPress={() => actions.setRightsChanged(false)} />
    </View>
  );
}

const styles = StyleSheet.create({
  strip: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    alignItems: 'center',
    gap: 8,
    paddingHorizontal: 20,
    paddingVertical: 6,
    borderBottomWidth: 1,
  },
  words: { flex: 1, minWidth: 160 },
});
