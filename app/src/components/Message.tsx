import type { ComponentType } from 'react';
import { StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Button } from './Button';
import { EmptyIcon, UnplugIcon } from './icons';
import { Words } from './Words';

interface NoticeProps {
  readonly kind: 'empty' | 'error';
  readonly title: string;
  readonly text: string;
  readonly action?: { readonly label: string; readonly onPress: () => void };
}

/** What is missing or failed, why, and the next step. */
export function Message({ kind, title, text, action }: NoticeProps) {
  const palette = usePalette();
  const Icon: ComponentType<{ size: number; color: string; strokeWidth: number }> =
    kind === 'empty' ? EmptyIcon : UnplugIcon;
  return (
    <View style={styles.box} role={kind === 'error' ? 'alert' : undefined}>
      <Icon size={24} color={palette.ink} strokeWidth={1.75} />
      <Words as="rowTitle">{title}</Words>
      <Words as="body" colour={palette.ink2}>
        {text}
      </Words>
      {action && (
        <View style={styles.action}>
          <Button label={action.label} onPress={action.onPress} />
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  box: { gap: 6, paddingVertical: 12, alignItems: 'flex-start' },
  action: { marginTop: 6 },
});
