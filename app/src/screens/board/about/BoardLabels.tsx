import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Board } from '@vivid-beacon/core';
import { useBoardLabels, useLabelBoard } from '../../../api/boards';
import { Button } from '../../../components/Button';
import { Field } from '../../../components/Field';
import { Refusal } from '../../../components/Refusal';
import { Section } from '../../../components/Section';
import { ToggleRow } from '../../../components/ToggleRow';
import { Words } from '../../../components/Words';
import { usePalette } from '../../../theme/useTheme';

/** The labels of a board: those in use elsewhere are a tap, others are typed. */
export function BoardLabels({ board }: { readonly board: Board }) {
  const palette = usePalette();
  const known = useBoardLabels();
  const label = useLabelBoard(board.id);
  const [typed, setTyped] = useState('');
  const add = (): void => label.mutate([...board.labels, typed.trim()], { onSuccess: () => setTyped('') });
  if (!board.mayChange) {
    return board.labels.length === 0 ? null : (
      <Section title="Labels" closed={false}>
        <Words as="body">{board.labels.join(', ')}</Words>
      </Section>
    );
  }
  const offered = [...new Set([...board.labels, ...(known.data ?? []).map((each) => each.label)])];
  return (
    <Section title="Labels" closed={false}>
      {offered.length === 0 && (
        <Words as="second" colour={palette.ink2}>
          Boards with the same label are listed together.
        </Words>
      )}
      {offered.length > 0 && (
        <ToggleRow
          name="Labels of this board"
          options={offered.map((value) => ({ value, label: value }))}
          chosen={board.labels}
          onChange={(labels) => label.mutate(labels)}
        />
      )}
      <View style={styles.add}>
        <View style={styles.field}>
          <Field
            label="New label"
            hideLabel
            placeholder="New label, such as Energy"
            value={typed}
            onChange={setTyped}
          />
        </View>
        <Button
          label="Add"
          name="Add the label"
          disabled={typed.trim() === '' || label.isPending}
          onPress={add}
        />
      </View>
      <Refusal of={label} />
    </Section>
  );
}

const styles = StyleSheet.create({
  add: { flexDirection: 'row', gap: 8, alignItems: 'center' },
  field: { flex: 1, minWidth: 0, maxWidth: 320 },
});
