import { StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

/** A name and what it is, side by side. */
export function Fact({ name, text }: { readonly name: string; readonly text: string }) {
  const palette = usePalette();
  return (
    <View style={styles.fact}>
      <View style={styles.name}>
        <Words as="body" colour={palette.ink2}>
          {name}
        </Words>
      </View>
      <View style={styles.text}>
        <Words as="body">{text}</Words>
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  fact: { flexDirection: 'row', gap: 12 },
  name: { width: 92 },
  text: { flex: 1, minWidth: 0 },
});
