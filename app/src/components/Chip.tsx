import type { ComponentType } from 'react';
import { Pressable, StyleSheet } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

interface ChipProps {
  readonly label: string;
  readonly icon?: ComponentType<{ size?: number; color?: string; strokeWidth?: number }>;
  /** On: it leaves something out, or holds the focus. */
  readonly on: boolean;
  readonly name?: string;
  readonly onPress: () => void;
}

/** A small button that says what is set and opens it. 36 px high, 44 to the finger. */
export function Chip({ label, icon: Icon, on, name, onPress }: ChipProps) {
  const palette = usePalette();
  return (
    <Pressable
      role="button"
      aria-label={name}
      hitSlop={4}
      onPress={onPress}
      style={({ pressed }) => [
        styles.chip,
        on
          ? { backgroundColor: palette.water, borderColor: palette.sea, borderWidth: 2 }
          : { borderColor: palette.line2 },
        pressed && { opacity: 0.6 },
      ]}
    >
      {Icon && <Icon size={18} color={palette.ink} strokeWidth={1.75} />}
      <Words as={on ? 'bodyStrong' : 'body'} lines={1}>
        {label}
      </Words>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  chip: {
    minHeight: 36,
    maxWidth: 320,
    borderRadius: 10,
    borderWidth: 1,
    paddingHorizontal: 10,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 6,
  },
});
