import { useEffect, type ReactNode } from 'react';
import { Modal, Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { useLayout } from '../hooks/useLayout';
import { useReducedMotion } from '../hooks/useReducedMotion';
import { usePalette } from '../theme/useTheme';
import { CloseIcon } from './icons';
import { IconButton } from './IconButton';
import { Words } from './Words';

interface TrayProps {
  readonly title: string;
  readonly open: boolean;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A sheet that rises at the thumb; on wide screens it stands in the middle. Esc closes it. */
export function Tray({ title, open, onClose, children }: TrayProps) {
  const palette = usePalette();
  const { wide, height } = useLayout();
  const still = useReducedMotion();
  // The modal hears Escape, and takes the focus, only once it has stopped rising; until then what lies under it has the focus
  // and may know a use of its own for Escape.
  useEffect(() => {
    if (!open) return undefined;
    const close = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') onClose();
    };
    const closeRising = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape' || (event.target as Element).closest?.('[aria-modal]')) return;
      event.stopPropagation();
      onClose();
    };
    document.addEventListener('keydown', close);
    document.addEventListener('keydown', closeRising, true);
    return () => {
      document.removeEventListener('keydown', close);
      document.removeEventListener('keydown', closeRising, true);
    };
  }, [open, onClose]);
  return (
    <Modal
      visible={open}
      transparent
      animationType={still ? 'fade' : wide ? 'fade' : 'slide'}
      onRequestClose={onClose}
    >
      <View style={[styles.over, wide && styles.overWide]}>
        <Pressable
          aria-label="Close"
          role="button"
          tabIndex={-1}
          onPress={onClose}
          style={[StyleSheet.absoluteFill, styles.veil]}
        />
        <View
          aria-label={title}
          role="dialog"
          style={[
            styles.tray,
            wide && styles.trayWide,
            { backgroundColor: palette.sheet, borderColor: palette.ink, maxHeight: height * 0.86 },
          ]}
        >
          <View style={styles.head}>
            <View style={styles.title}>
              <Words as="sectionHead" heading={2}>
                {title}
              </Words>
            </View>
            <IconButton icon={CloseIcon} name="Close" onPress={onClose} />
          </View>
          <ScrollView contentContainerStyle={styles.body} keyboardShouldPersistTaps="handled">
            {children}
          </ScrollView>
        </View>
      </View>
    </Modal>
  );
}

const styles = StyleSheet.create({
  over: { flex: 1, justifyContent: 'flex-end' },
  overWide: { justifyContent: 'center', alignItems: 'center' },
  veil: { backgroundColor: 'rgba(10, 22, 27, 0.45)' },
  tray: { borderTopLeftRadius: 18, borderTopRightRadius: 18, borderWidth: 1.5, borderBottomWidth: 0 },
  trayWide: { width: 560, borderRadius: 18, borderBottomWidth: 1.5 },
  head: { flexDirection: 'row', alignItems: 'center', paddingLeft: 20, paddingRight: 8, paddingTop: 8 },
  title: { flex: 1 },
  body: { paddingHorizontal: 20, paddingBottom: 24, gap: 12 },
});
