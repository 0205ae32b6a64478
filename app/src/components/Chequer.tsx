import { StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';

const FIELDS = [0, 1, 2, 3];

/** The chequered bar: this one is chosen. */
export function Chequer({ shown = true }: { readonly shown?: boolean }) {
  const palette = usePalette();
  return (
    <View aria-hidden style={[styles.bar, { borderColor: palette.ink, opacity: shown ? 1 : 0 }]}>
      {FIELDS.map((field) => (
        <View
          key={field}
          style={[styles.field, { backgroundColor: field % 2 ? palette.sheet : palette.ink }]}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  bar: { height: 6, borderWidth: 1, flexDirection: 'row', alignSelf: 'stretch' },
  field: { flex: 1 },
});
