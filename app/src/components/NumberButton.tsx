import { Pressable, StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import type { TypeRole } from '../theme/type';
import { Words } from './Words';

interface NumberButtonProps {
  readonly text: string;
  readonly unit: string;
  /** What is spoken before the number: what it is, and that pressing shows how it was made. */
  readonly name: string;
  readonly onPress: () => void;
  readonly as?: TypeRole;
  /** Whether it is of too little data to be judged. */
  readonly faint?: boolean;
}

/** A number that opens its provenance. */
export function NumberButton({ text, unit, name, onPress, as = 'figure', faint = false }: NumberButtonProps) {
  const palette = usePalette();
  return (
    <Pressable
      role="button"
      aria-label={`${text}${unit === '' ? '' : ` ${unit}`}, ${name}`}
      onPress={onPress}
      style={({ pressed }) => [styles.number, pressed && { opacity: 0.6 }]}
    >
      <View style={styles.line}>
        <Words as={as} colour={faint ? palette.ink3 : undefined}>
          {text}
        </Words>
        {unit !== '' && (
          <Words as={as === 'hero' ? 'figure' : 'second'} colour={palette.ink2}>
            {unit}
          </Words>
        )}
      </View>
    </Pressable>
  );
}

const styles = StyleSheet.create({
  number: { minHeight: 44, minWidth: 44, justifyContent: 'center' },
  line: { flexDirection: 'row', alignItems: 'baseline', gap: 4, justifyContent: 'flex-end' },
});
