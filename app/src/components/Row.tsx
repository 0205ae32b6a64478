import type { ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { OnIcon } from './icons';
import { Rule } from './Rule';
import { Words } from './Words';

interface RowProps {
  readonly title: string;
  readonly second?: ReactNode;
  readonly left?: ReactNode;
  readonly right?: ReactNode;
  /** Under the row, where there is no room beside it. */
  readonly below?: ReactNode;
  readonly onPress?: () => void;
  readonly last?: boolean;
  /** Whether it is what is shown beside the list. */
  readonly chosen?: boolean;
  /** Spoken instead of the texts, where a lamp's word belongs to it. */
  readonly name?: string;
}

/** A row of a list: something at the left, title and second line, something at the right. */
export function Row({
  title,
  second,
  left,
  right,
  below,
  onPress,
  last = false,
  chosen = false,
  name,
}: RowProps) {
  const palette = usePalette();
  const text = (
    <View style={styles.text}>
      <Words as="rowTitle">{title}</Words>
      {typeof second === 'string' ? (
        <Words as="second" colour={palette.ink2}>
          {second}
        </Words>
      ) : (
        second
      )}
    </View>
  );
  return (
    <View>
      <View style={[styles.row, chosen && { backgroundColor: palette.water }]}>
        {onPress ? (
          <Pressable
            role="link"
            aria-label={name}
            {...({ 'aria-current': chosen ? 'true' : undefined } as object)}
            onPress={onPress}
            style={({ pressed }) => [styles.press, pressed && { opacity: 0.6 }]}
          >
            {left}
            {text}
            {!right && <OnIcon size={20} color={palette.ink2} strokeWidth={1.75} />}
          </Pressable>
        ) : (
          <View style={styles.press}>
            {left}
            {text}
          </View>
        )}
        {right && <View>{right}</View>}
      </View>
      {below}
      {!last && <Rule />}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 10, minHeight: 56, paddingVertical: 7 },
  press: { flex: 1, minWidth: 0, flexDirection: 'row', alignItems: 'center', gap: 12, minHeight: 44 },
  text: { flex: 1, minWidth: 0, gap: 1 },
});
