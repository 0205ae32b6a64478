import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type ListedBoard } from '@vivid-beacon/core';
import type { BOARD_LISTS } from '@vivid-beacon/core/src/schemas/lists';
import { useBoardLabels, useBoardPages, useFavourite } from '../../api/boards';
import { Button } from '../../components/Button';
import { BoardIcon, FavouriteIcon, PlusIcon } from '../../components/icons';
import { IconButton } from '../../components/IconButton';
import { LongList } from '../../components/LongList';
import { Message } from '../../components/Message';
import { Page } from '../../components/Page';
import { SearchField, useSearch } from '../../components/SearchField';
import { Row } from '../../components/Row';
import { WordRow } from '../../components/WordRow';
import { Tray } from '../../components/Tray';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { lazyScreen } from '../lazyScreen';
import { deviceZone } from '../deviceZone';

const NewBoard = lazyScreen(async () => (await import('../boardScreens')).NewBoard);

type BoardList = (typeof BOARD_LISTS)[number];
const LISTS: readonly { readonly value: BoardList; readonly label: string }[] = [
  { value: 'all', label: 'all' },
  { value: 'favourites', label: 'favourites' },
  { value: 'own', label: 'your own' },
  { value: 'archive', label: 'archive' },
];
const NONE: Readonly<Record<BoardList, string>> = {
  all: 'No board has this label.',
  favourites: 'The pin beside a board makes it a favourite; favourites come first in every list.',
  own: 'None is yours yet. A copy of a board is.',
  archive: 'Nothing is in the archive.',
};
/** No label has this name: it is empty. */
const ALL = '';

/** Boards that the person may see, and the button for a new one. */
export function BoardsScreen() {
  const palette = usePalette();
  const search = useSearch();
  const [list, setList] = useState<BoardList>('all');
  const [label, setLabel] = useState<string | null>(null);
  const boards = useBoardPages({ list, label: label ?? undefined, search: search.settled });
  const labels = useBoardLabels();
  const [naming, setNaming] = useState(false);
  return (
    <Page
      title="Boards"
      term="readout"
      tools={
        <Button
          label="New board"
          icon={<PlusIcon size={20} color={palette.ink} strokeWidth={1.75} />}
          onPress={() => setNaming(true)}
        />
      }
    >
      <SearchField label="Search boards" placeholder="Search by title, label or owner" search={search} />
      <WordRow name="Which boards" options={LISTS} chosen={list} onChoose={setList} />
      {labels.data && labels.data.length > 0 && (
        <WordRow
          name="Label"
          options={[
            { value: ALL, label: 'every label' },
            ...labels.data.map((each) => ({ value: each.label, label: each.label })),
          ]}
          chosen={label ?? ALL}
          onChoose={(value) => setLabel(value === ALL ? null : value)}
        />
      )}
      <LongList
        pages={boards}
        reading="Loading boards"
        searched={search.settled}
        fits={(board: ListedBoard) => label === null || board.labels.includes(label)}
        empty={
          list === 'all' && label === null ? (
            <Message
              kind="empty"
              title="No boards yet"
              text="A board is one sheet of gauges, lamps, figures and trends. What others share with you stands here too."
              action={{ label: 'New board', onPress: () => setNaming(true) }}
            />
          ) : (
            NONE[list]
          )
        }
      >
        {(board: ListedBoard, last) => <BoardRow key={board.id} board={board} last={last} />}
      </LongList>
      <Tray title="New board" open={naming} onClose={() => setNaming(false)}>
        {naming && <NewBoard onDone={() => setNaming(false)} />}
      </Tray>
    </Page>
  );
}

function BoardRow({ board, last }: { readonly board: ListedBoard; readonly last: boolean }) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow();
  const count = board.readouts;
  const zone = deviceZone();
  return (
    <Row
      title={board.title}
      second={[
        `${count} ${count === 1 ? 'readout' : 'readouts'}, ${board.ownerName}, ${formatMoment(board.updatedAt, zone, now)}`,
        ...(board.audience === 'owner' ? ['not shared'] : []),
        ...board.labels,
      ].join(' · ')}
      right={<Favourite board={board} />}
      left={
        <View style={styles.icon}>
          <BoardIcon size={22} color={palette.ink} strokeWidth={1.75} />
        </View>
      }
      onPress={() => router.push(`/boards/${board.id}`)}
      last={last}
    />
  );
}

/** Whether a board is a favourite, to press. */
function Favourite({ board }: { readonly board: ListedBoard }) {
  const favourite = useFavourite(board.id);
  return (
    <IconButton
      icon={FavouriteIcon}
      name={`${board.title} among your favourites`}
      chosen={board.favourite}
      disabled={favourite.isPending}
      onPress={() => favourite.mutate(!board.favourite)}
    />
  );
}

const styles = StyleSheet.create({ icon: { width: 40, alignItems: 'center' } });
