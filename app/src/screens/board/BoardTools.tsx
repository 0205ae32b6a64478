import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { sameWindow, windowWords, type Board } from '@vivid-beacon/core';
import { metricsOfBoard, writeBoardFile } from '@vivid-beacon/core/src/boards';
import { placesFor } from '../../api/files';
import { useRemoveBoard } from '../../api/boards';
import { useMetricsById } from '../../api/catalogue';
import type { BoardFilters } from '../../boards/BoardFiltersContext';
import type { BoardEdits } from '../../boards/useBoardEdits';
import { Button } from '../../components/Button';
import { Field } from '../../components/Field';
import { IconButton } from '../../components/IconButton';
import { PasteIcon, RedoIcon, UndoIcon } from '../../components/icons';
import { RemoveThing } from '../../components/RemoveThing';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { fileName, saveText } from '../saveText';

interface BoardToolsProps {
  readonly board: Board;
  readonly filters: BoardFilters;
  readonly edits: BoardEdits;
  /** null = nothing has been copied. */
  readonly onPaste: (() => void) | null;
  readonly onDone: () => void;
}

/** Title, filters, file and removal of a board in arrange mode. */
export function BoardTools({ board, filters, edits, onPaste, onDone }: BoardToolsProps) {
  const palette = usePalette();
  const router = useRouter();
  const { byId: metrics, whole } = useMetricsById(metricsOfBoard(board.document));
  const remove = useRemoveBoard();
  const [title, setTitle] = useState(board.title);
  const { document } = board;
  const [fileError, setFileError] = useState<string | null>(null);
  const saveFile = async (): Promise<void> => {
    try {
      const places = await placesFor(document);
      const text = writeBoardFile(board.title, document, [...metrics.values()], places);
      saveText(fileName(board.title, 'board.json'), text);
      setFileError(null);
    } catch (error) {
      setFileError((error as Error).message);
    }
  };
  const otherWindow = !sameWindow(filters.window, document.window);
  const otherFilters = otherWindow || filters.scope !== document.scope || filters.hours !== document.hours;
  return (
    <View style={[styles.tools, { backgroundColor: palette.ground, borderTopColor: palette.line }]}>
      <View style={styles.title}>
        <Field label="Title" value={title} onChange={setTitle} />
      </View>
      <View style={styles.buttons}>
        <IconButton icon={UndoIcon} name="Undo" disabled={!edits.undo} onPress={() => edits.undo?.()} />
        <IconButton icon={RedoIcon} name="Redo" disabled={!edits.redo} onPress={() => edits.redo?.()} />
        <IconButton
          icon={PasteIcon}
          name="Paste the copied readout"
          disabled={!onPaste}
          onPress={() => onPaste?.()}
        />
        <Button
          label="Save"
          disabled={edits.saving || (title.trim() === board.title && !otherFilters)}
          name={`Save the title${otherFilters ? ', window, scope and hours as they are shown' : ''}`}
          onPress={() =>
            edits.change(
              {
                title: title.trim(),
                document: { ...document, window: filters.window, scope: filters.scope, hours: filters.hours },
              },
              onDone,
            )
          }
        />
        <Button variant="quiet" label="Board as a file" disabled={!whole} onPress={() => void saveFile()} />
        <RemoveThing
          what="board"
          id={board.id}
          name={board.title}
          words="It leaves the list of boards for everybody. It can be restored under Data, Removed."
          removal={remove}
          onGone={() => router.replace('/boards')}
        />
      </View>
      {otherFilters && (
        <Words as="second" colour={palette.ink2}>
          {`Save also keeps ${otherWindow ? `${windowWords(filters.window)}, ` : ''}the scope and hours as they are shown now.`}
        </Words>
      )}
      {fileError && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>{`The file could not be written. ${fileError}`}</Words>
        </View>
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  tools: { paddingHorizontal: 20, paddingVertical: 10, gap: 8, borderTopWidth: 1 },
  title: { maxWidth: 420 },
  buttons: { flexDirection: 'row', gap: 6, flexWrap: 'wrap', alignItems: 'center' },
});
