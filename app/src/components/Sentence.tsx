import { Fragment, type ReactNode } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { usePalette } from '../theme/useTheme';
import { Words } from './Words';

/** A piece of a sentence: plain words, or a slot that can be tapped. */
export type SentencePart =
  | { readonly kind: 'words'; readonly text: string }
  | { readonly kind: 'slot'; readonly key: string; readonly text: string };

interface SentenceProps {
  readonly parts: readonly SentencePart[];
  readonly open: string | null;
  readonly onOpen: (key: string) => void;
}

/** What is being built, written out; every underlined slot opens its choices. */
export function Sentence({ parts, open, onOpen }: SentenceProps) {
  const palette = usePalette();
  return (
    <View style={styles.sentence}>
      {parts.map((part, i): ReactNode => {
        if (part.kind === 'words') {
          return (
            <Fragment key={`w${i}`}>
              {part.text.split(' ').map((word, k) => (
                <Words key={k} as="sentence" style={word === '.' ? styles.stop : undefined}>
                  {word}
                </Words>
              ))}
            </Fragment>
          );
        }
        const chosen = part.key === open;
        return (
          <Pressable
            key={part.key}
            role="button"
            aria-expanded={chosen}
            onPress={() => onOpen(part.key)}
            style={[
              styles.slot,
              chosen
                ? { backgroundColor: palette.btn, borderBottomColor: palette.btn, borderRadius: 8 }
                : { borderBottomColor: palette.sea },
            ]}
          >
            <Words as="slot" colour={chosen ? palette.btnT : palette.ink}>
              {part.text}
            </Words>
          </Pressable>
        );
      })}
    </View>
  );
}

/** Between the words of a sentence. */
const GAP = 6;

const styles = StyleSheet.create({
  sentence: { flexDirection: 'row', flexWrap: 'wrap', columnGap: GAP, rowGap: 6, alignItems: 'center' },
  // A full stop is set right behind the slot before it.
  stop: { marginLeft: -GAP },
  slot: {
    borderBottomWidth: 2,
    paddingHorizontal: 4,
    minHeight: 36,
    maxWidth: '100%',
    justifyContent: 'center',
  },
});
