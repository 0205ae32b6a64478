import { Pressable, ScrollView, StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Chequer } from './Chequer';
import { Words } from './Words';

interface WordRowProps<T extends string> {
  readonly name: string;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly chosen: T | null;
  readonly onChoose: (value: T) => void;
}

/** Sibling words of which one is chosen. */
export function WordRow<T extends string>({ name, options, chosen, onChoose }: WordRowProps<T>) {
  const palette = usePalette();
  return (
    <ScrollView horizontal showsHorizontalScrollIndicator={false} style={styles.scroll}>
      <View role="radiogroup" aria-label={name} style={styles.row}>
        {options.map(({ value, label }) => {
          const on = value === chosen;
          return (
            <Pressable
              key={value}
              role="radio"
              aria-checked={on}
              onPress={() => onChoose(value)}
              style={styles.word}
            >
              <Words as={on ? 'bodyStrong' : 'body'} colour={on ? palette.ink : palette.ink2}>
                {label}
              </Words>
              <Chequer shown={on} />
            </Pressable>
          );
        })}
      </View>
    </ScrollView>
  );
}

const styles = StyleSheet.create({
  scroll: { flexGrow: 0 },
  row: { flexDirection: 'row', gap: 18 },
  word: { minHeight: 44, justifyContent: 'center', gap: 2, paddingHorizontal: 2 },
});
