import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type Audience, type Board } from '@vivid-beacon/core';
import { useArchiveBoard, useFavourite, useSaveBoard } from '../../../api/boards';
import { Button } from '../../../components/Button';
import { FavouriteIcon } from '../../../components/icons';
import { Refusal } from '../../../components/Refusal';
import { Words } from '../../../components/Words';
import { useNow } from '../../../hooks/useNow';
import { usePalette } from '../../../theme/useTheme';
import { deviceZone } from '../../deviceZone';
import { BoardFiles, type BoardLook } from './BoardFiles';
import { BoardLabels } from './BoardLabels';
import { BoardSharing } from './BoardSharing';
import { BoardVersions } from './BoardVersions';

const SEEN_BY: Readonly<Record<Audience, string>> = {
  owner: 'Only its owner and administrators see it.',
  everybody: 'Everybody sees it.',
  some: 'Those it is shared with see it.',
};

/** What a board is besides its readouts: whose it is, who sees it, labels, versions; copy, favourites, archive. */
export function AboutBoard({
  board,
  look,
  onDone,
}: {
  readonly board: Board;
  readonly look: BoardLook;
  readonly onDone: () => void;
}) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow();
  const favourite = useFavourite(board.id);
  const archive = useArchiveBoard(board.id);
  const save = useSaveBoard();
  const archived = board.archivedAt !== null;
  const copy = (): void =>
    save.mutate(
      { id: null, title: `${board.title}, copy`, document: board.document, revision: 0 },
      {
        onSuccess: ({ id }) => {
          onDone();
          router.push(`/boards/${id}`);
        },
      },
    );
  return (
    <View style={styles.about}>
      <Words as="body">
        {`Board of ${board.ownerName}, saved ${formatMoment(board.updatedAt, deviceZone(), now)}. ${SEEN_BY[board.audience]}`}
      </Words>
      <View style={styles.buttons}>
        <Button
          label={board.favourite ? 'In your favourites' : 'Add to favourites'}
          name={board.favourite ? 'Take from your favourites' : 'Add to your favourites'}
          icon={<FavouriteIcon size={20} color={palette.ink} strokeWidth={1.75} />}
          disabled={favourite.isPending}
          onPress={() => favourite.mutate(!board.favourite)}
        />
        <Button label="Copy" name="Copy to a board of your own" disabled={save.isPending} onPress={copy} />
        {board.mayChange && (
          <Button
            variant="quiet"
            label={archived ? 'Take out of the archive' : 'Put into the archive'}
            disabled={archive.isPending}
            onPress={() => archive.mutate(!archived)}
          />
        )}
      </View>
      <Refusal of={favourite} />
      <Refusal of={save} />
      <Refusal of={archive} />
      <BoardFiles board={board} look={look} />
      <BoardLabels board={board} />
      {board.mayChange && <BoardSharing board={board} />}
      <BoardVersions board={board} onDone={onDone} />
    </View>
  );
}

const styles = StyleSheet.create({
  about: { gap: 10 },
  buttons: { flexDirection: 'row', flexWrap: 'wrap', gap: 8 },
});
