import type { ComponentType } from 'react';
import { Pressable, StyleSheet } from 'react-native';
import { usePalette } from '../theme/useTheme';

interface IconButtonProps {
  readonly icon: ComponentType<{ size?: number; color?: string; strokeWidth?: number }>;
  readonly name: string;
  readonly onPress: () => void;
  readonly disabled?: boolean;
  /** Of something that is on or off: is it on? */
  readonly chosen?: boolean;
}

/** An icon that can be pressed; its name is spoken. */
export function IconButton({ icon: Icon, name, onPress, disabled = false, chosen }: IconButtonProps) {
  const palette = usePalette();
  return (
    <Pressable
      role="button"
      aria-label={name}
      aria-disabled={disabled}
      aria-pressed={chosen}
      disabled={disabled}
      onPress={onPress}
      style={({ pressed }) => [
        styles.button,
        chosen && { backgroundColor: palette.water, borderRadius: 10 },
        { opacity: disabled ? 0.35 : pressed ? 0.6 : 1 },
      ]}
    >
      <Icon size={22} color={palette.ink} strokeWidth={1.75} />
    </Pressable>
  );
}

const styles = StyleSheet.create({
  button: { width: 44, height: 44, alignItems: 'center', justifyContent: 'center' },
});
