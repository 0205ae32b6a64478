import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { sameWindow, windowWords, type Board, type WindowSpec } from '@vivid-beacon/core';
import { useRemoveBoard, useSaveBoard } from '../api/changes';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';

interface BoardToolsProps {
  readonly board: Board;
  readonly window: WindowSpec;
  readonly onDone: () => void;
}

/** Title, window and removal of a board, while it is arranged. */
export function BoardTools({ board, window, onDone }: BoardToolsProps) {
  const palette = usePalette();
  const router = useRouter();
  const save = useSaveBoard();
  const remove = useRemoveBoard();
  const [title, setTitle] = useState(board.title);
  const [sure, setSure] = useState(false);
  const otherWindow = !sameWindow(window, board.document.window);
  const failed = save.error ?? remove.error;
  return (
    <View style={[styles.tools, { backgroundColor: palette.ground, borderTopColor: palette.line }]}>
      <View style={styles.title}>
        <Field label="Title" value={title} onChange={setTitle} />
      </View>
      <View style={styles.buttons}>
        <Button
          label="Save"
          disabled={save.isPending || (title === board.title && !otherWindow)}
          name={`Save the title${otherWindow ? ` and ${windowWords(window)} as the board's window` : ''}`}
          onPress={() =>
            save.mutate({ ...board, title, document: { ...board.document, window } }, { onSuccess: onDone })
          }
        />
        <Button
          look="quiet"
          label={sure ? 'Remove for good' : 'Remove board'}
          onPress={() =>
            sure ? remove.mutate(board.id, { onSuccess: () => router.replace('/boards') }) : setSure(true)
          }
        />
      </View>
      {otherWindow && (
        <Words
          as="second"
          colour={palette.ink2}
        >{`Save also makes ${windowWords(window)} the board's own window.`}</Words>
      )}
      {failed && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>
            {failed.message}
          </Words>
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  tools: { paddingHorizontal: 20, paddingVertical: 10, gap: 8, borderTopWidth: 1 },
  title: { maxWidth: 420 },
  buttons: { flexDirection: 'row', gap: 10, flexWrap: 'wrap' },
});
