import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { sameWindow, windowWords, metricsOfBoard, writeBoardFile, type Board } from '@vivid-beacon/core';
import { useRemoveBoard } from '../../api/changes';
import { useMetricsById } from '../../api/catalogue';
import type { BoardLook } from '../../boards/BoardLookContext';
import type { BoardEdits } from '../../boards/useBoardEdits';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { IconButton } from '../../components/IconButton';
import { PasteIcon, RedoIcon, UndoIcon } from '../../components/icons';
import { Refusal } from '../../components/Refusal';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { fileName, saveText } from '../saveText';

interface BoardToolsProps {
  readonly board: Board;
  readonly look: BoardLook;
  readonly edits: BoardEdits;
  /** null = nothing has been copied. */
  readonly onPaste: (() => void) | null;
  readonly onDone: () => void;
}

/** Title, look, file and removal of a board, while it is arranged. */
export function BoardTools({ board, look, edits, onPaste, onDone }: BoardToolsProps) {
  const palette = usePalette();
  const router = useRouter();
  const metrics = useMetricsById(metricsOfBoard(board.document)).byId;
  const remove = useRemoveBoard();
  const [title, setTitle] = useState(board.title);
  const [sure, setSure] = useState(false);
  const { document } = board;
  const otherWindow = !sameWindow(look.window, document.window);
  const otherLook = otherWindow || look.scope !== document.scope || look.hours !== document.hours;
  return (
    <View style={[styles.tools, { backgroundColor: palette.ground, borderTopColor: palette.line }]}>
      <View style={styles.title}>
        <Field label="Title" value={title} onChange={setTitle} />
      </View>
      <View style={styles.buttons}>
        <IconButton icon={UndoIcon} name="Undo" disabled={!edits.undo} onPress={() => edits.undo?.()} />
        <IconButton icon={RedoIcon} name="Do again" disabled={!edits.redo} onPress={() => edits.redo?.()} />
        <IconButton
          icon={PasteIcon}
          name="Paste the copied readout"
          disabled={!onPaste}
          onPress={() => onPaste?.()}
        />
        <Button
          label="Save"
          disabled={edits.saving || (title.trim() === board.title && !otherLook)}
          name={`Save the title${otherLook ? ', window, scope and hours as they are shown' : ''}`}
          onPress={() =>
            edits.change(
              {
                title: title.trim(),
                document: { ...document, window: look.window, scope: look.scope, hours: look.hours },
              },
              onDone,
            )
          }
        />
        <Button
          look="quiet"
          label="Board as a file"
          onPress={() =>
            saveText(
              fileName(board.title, 'board.json'),
              writeBoardFile(board.title, document, [...metrics.values()]),
            )
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
      {otherLook && (
        <Words as="second" colour={palette.ink2}>
          {`Save also keeps ${otherWindow ? `${windowWords(look.window)}, ` : ''}the scope and hours as they are shown now.`}
        </Words>
      )}
      <Refusal of={remove} />
    </View>
  );
}

const styles = StyleSheet.create({
  tools: { paddingHorizontal: 20, paddingVertical: 10, gap: 8, borderTopWidth: 1 },
  title: { maxWidth: 420 },
  buttons: { flexDirection: 'row', gap: 6, flexWrap: 'wrap', alignItems: 'center' },
});
