import { Pressable, StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

interface ToggleRowProps<T extends string | number> {
  readonly name: string;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly chosen: readonly T[];
  readonly onChange: (chosen: T[]) => void;
}

/** Words of which any number are on. */
export function ToggleRow<T extends string | number>({ name, options, chosen, onChange }: ToggleRowProps<T>) {
  const palette = usePalette();
  return (
    <View role="group" aria-label={name} style={styles.row}>
      {options.map(({ value, label }) => {
        const on = chosen.includes(value);
        return (
          <Pressable
            key={value}
            role="checkbox"
            aria-checked={on}
            onPress={() => onChange(on ? chosen.filter((each) => each !== value) : [...chosen, value])}
            style={[
              styles.chip,
              on
                ? { backgroundColor: palette.water, borderColor: palette.sea, borderWidth: 2 }
                : { borderColor: palette.line2 },
            ]}
          >
            <Words as={on ? 'bodyStrong' : 'body'}>{label}</Words>
          </Pressable>
        );
      })}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
  chip: {
    minHeight: 44,
    minWidth: 44,
    borderWidth: 1,
    borderRadius: 10,
    paddingHorizontal: 12,
    alignItems: 'center',
    justifyContent: 'center',
  },
});
