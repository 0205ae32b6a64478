import type { ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

interface ButtonProps {
  readonly label: string;
  readonly onPress: () => void;
  /** primary = the main action here; secondary = every other. */
  readonly variant?: 'primary' | 'secondary' | 'quiet';
  readonly icon?: ReactNode;
  readonly disabled?: boolean;
  /** Says more to screen readers than the label where it stands alone. */
  readonly name?: string;
  readonly grow?: boolean;
  readonly testID?: string;
}

/** A button is a verb. 44 px high at least. */
export function Button({
  label,
  onPress,
  variant = 'secondary',
  icon,
  disabled = false,
  name,
  grow,
  testID,
}: ButtonProps) {
  const palette = usePalette();
  const primary = variant === 'primary';
  return (
    <Pressable
      role="button"
      aria-label={name}
      aria-disabled={disabled}
      disabled={disabled}
      onPress={onPress}
      testID={testID}
      style={({ pressed }) => [
        styles.button,
        {
          backgroundColor: primary ? palette.btn : palette.sheet,
          borderColor: variant === 'quiet' ? palette.line2 : palette.ink,
          borderWidth: variant === 'quiet' ? 1 : 1.5,
          opacity: disabled ? 0.45 : pressed ? 0.75 : 1,
        },
        grow && styles.grow,
      ]}
    >
      {icon && <View>{icon}</View>}
      <Words as="bodyStrong" colour={primary ? palette.btnT : palette.ink}>
        {label}
      </Words>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  button: {
    minHeight: 44,
    paddingHorizontal: 14,
    paddingVertical: 8,
    borderRadius: 10,
    flexDirection: 'row',
    gap: 8,
    alignItems: 'center',
    justifyContent: 'center',
  },
  grow: { flexGrow: 1, flexShrink: 1 },
});
