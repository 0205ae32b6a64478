import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { useUndoStore } from '../stores/undoStore';
import { usePalette } from '../theme/useTheme';
import { Button } from './Button';
import { Words } from './Words';

/** Says what was removed and offers to put it back; it stays until it is answered. */
export function UndoStrip() {
  const palette = usePalette();
  const { offer, actions } = useUndoStore();
  const [state, setState] = useState<{
    readonly of: object;
    readonly busy: boolean;
    readonly error: string | null;
  }>();
  if (!offer) return null;
  const own = state?.of === offer ? state : { busy: false, error: null };
  const undo = async (): Promise<void> => {
    setState({ of: offer, busy: true, error: null });
    try {
      await offer.undo();
      actions.dismiss();
    } catch (error) {
      setState({ of: offer, busy: false, error: (error as Error).message });
    }
  };
  return (
    <View
      role="status"
      style={[styles.strip, { backgroundColor: palette.well, borderTopColor: palette.ink }]}
    >
      <Words as="body" style={styles.words}>
        {own.error ? `Could not undo. ${own.error}` : `${offer.words}.`}
      </Words>
      <Button variant="quiet" label="Undo" disabled={own.busy} onPress={() => void undo()} />
      <Button variant="quiet" label="Dismiss" onPress={actions.dismiss} />
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
    paddingVertical: 8,
    borderTopWidth: 1,
  },
  words: { flex: 1, minWidth: 160 },
});
