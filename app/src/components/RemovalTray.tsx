import { StyleSheet, View } from 'react-native';
import type { RemovalEffect } from '@vivid-beacon/core';
import { usePalette } from '../theme/useTheme';
import { Button } from './Button';
import { Row } from './Row';
import { Tray } from './Tray';
import { Words } from './Words';

interface RemovalTrayProps {
  readonly title: string;
  readonly open: boolean;
  /** What happens, and how it is undone. */
  readonly words: string;
  /** What rests on it; null = not read yet. */
  readonly effects: readonly RemovalEffect[] | null;
  /** "Remove", "Withdraw". */
  readonly verb: string;
  readonly pending: boolean;
  readonly error: string | null;
  readonly onClose: () => void;
  readonly onRemove: () => void;
}

const EFFECTS: Readonly<Record<RemovalEffect['kind'], (n: number) => string>> = {
  rule: (n) => `${n === 1 ? 'A rule is' : `${n} rules are`} withdrawn, or no longer watch it`,
  derived: (n) => `${n === 1 ? 'A derived metric has' : `${n} derived metrics have`} no value any more`,
  indicator: (n) => `${n === 1 ? 'An indicator has' : `${n} indicators have`} no value any more`,
  board: (n) => `${n === 1 ? 'A board shows' : `${n} boards show`} a gap in its place`,
  narrowed: (n) => `${n === 1 ? 'A board is' : `${n} boards are`} narrowed to it`,
  leads: (n) => `${n === 1 ? 'An indicator leads' : `${n} indicators lead`} to it, and no longer will`,
  flag: (n) => `${n === 1 ? 'An open flag is' : `${n} open flags are`} about it`,
};

/** Asks before something is removed: what will follow, and how to undo it. Keeping comes first under the finger. */
export function RemovalTray({
  title,
  open,
  words,
  effects,
  verb,
  pending,
  error,
  onClose,
  onRemove,
}: RemovalTrayProps) {
  const palette = usePalette();
  return (
    <Tray title={title} open={open} onClose={onClose}>
      <View style={styles.body}>
        <Words as="body">{words}</Words>
        {effects === null && (
          <Words as="second" colour={palette.ink2}>
            Looking for what rests on it
          </Words>
        )}
        {effects?.map(({ kind, total, names }, i) => (
          <Row
            key={kind}
            title={EFFECTS[kind](total)}
            second={`${names.join('; ')}${total > names.length ? ` and ${total - names.length} more` : ''}`}
            last={i === effects.length - 1}
          />
        ))}
        {error && (
          <View role="alert">
            <Words as="body" colour={palette.breachT}>
              {error}
            </Words>
          </View>
        )}
        <Button variant="primary" label="Keep it" onPress={onClose} />
        <Button label={verb} disabled={pending || effects === null} onPress={onRemove} />
      </View>
    </Tray>
  );
}

const styles = StyleSheet.create({ body: { gap: 10 } });
