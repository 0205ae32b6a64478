import type { ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { isThin, levelWord, type ReadoutValue } from '@vivid-beacon/core/src/boards';
import { NumberButton } from '../components/NumberButton';
import { Rule } from '../components/Rule';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';

interface PartRowProps {
  readonly part: ReadoutValue;
  readonly decimals: number;
  /** Whether there is a target band; without one nothing is Clear. */
  readonly judged: boolean;
  /** Stands before the name. */
  readonly left?: ReactNode;
  /** Minimum width of the number, px, so that rows line up. */
  readonly numberRoom?: number;
  /** Stands between name and number. */
  readonly middle?: ReactNode;
  readonly second?: string;
  /** Of the name, where it is the word of a level. */
  readonly nameColour?: string;
  readonly last: boolean;
  readonly onOpen: () => void;
}

/** One value in a list: its name focuses the asset, its number opens the provenance. */
export function ValueRow({
  part,
  decimals,
  judged,
  numberRoom = 0,
  left,
  middle,
  second,
  nameColour,
  last,
  onOpen,
}: PartRowProps) {
  const palette = usePalette();
  const { focus, onFocus } = useBoardFilters();
  const chosen = focus !== null && focus === part.assetId;
  const name = (
    <>
      {left && <View style={styles.left}>{left}</View>}
      <View style={styles.words}>
        <Words as="rowTitle" colour={nameColour}>
          {part.name}
        </Words>
        {second && (
          <Words as="second" colour={palette.ink2}>
            {second}
          </Words>
        )}
      </View>
    </>
  );
  return (
    <View>
      <View
        style={[
          styles.row,
          chosen && { backgroundColor: palette.water, borderLeftColor: palette.sea, borderLeftWidth: 3 },
        ]}
      >
        {part.assetId ? (
          <Pressable
            role="button"
            aria-pressed={chosen}
            aria-label={`${[part.name, levelWord(part, judged)].filter(Boolean).join(', ')}. ${chosen ? 'Release the focus' : 'Focus on it'}`}
            onPress={() => onFocus(part.assetId!)}
            style={({ pressed }) => [styles.name, pressed && { opacity: 0.6 }]}
          >
            {name}
          </Pressable>
        ) : (
          <View style={styles.name}>{name}</View>
        )}
        {middle}
        <View style={{ minWidth: numberRoom }}>
          <NumberButton
            text={part.value === null ? '–' : formatNumber(part.value, decimals)}
            unit={part.unit}
            name={`${part.name}. How it was made`}
            faint={isThin(part)}
            onPress={onOpen}
          />
        </View>
      </View>
      {!last && <Rule />}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 8, minHeight: 46 },
  name: {
    flexGrow: 1,
    flexShrink: 1,
    flexBasis: 90,
    minWidth: 70,
    flexDirection: 'row',
    alignItems: 'center',
    gap: 10,
    minHeight: 44,
  },
  left: { flexShrink: 0 },
  words: { flexShrink: 1, minWidth: 0 },
});
