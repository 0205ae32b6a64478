import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type ListedBoard } from '@vivid-beacon/core';
import { useBoardPages } from '../../api/queries';
import { usePerson } from '../../api/session';
import { Button } from '../../components/Button';
import { BoardIcon, PlusIcon } from '../../components/icons';
import { LongList } from '../../components/LongList';
import { Message } from '../../components/Message';
import { Page } from '../../components/Page';
import { SearchField, useSearch } from '../../components/SearchField';
import { Row } from '../../components/Row';
import { Tray } from '../../components/Tray';
import { useNow } from '../../hooks/useNow';
import { usePalette } from '../../theme/useTheme';
import { mayBuild } from '../../api/mayAct';
import { lazyScreen } from '../lazyScreen';
import { deviceZone } from '../deviceZone';

const NewBoard = lazyScreen(async () => (await import('../boardScreens')).NewBoard);

/** All boards, and the button for a new one. */
export function BoardsScreen() {
  const palette = usePalette();
  const search = useSearch();
  const boards = useBoardPages(search.settled);
  const [naming, setNaming] = useState(false);
  const build = mayBuild(usePerson());
  return (
    <Page
      title="Boards"
      term="readout"
      tools={
        build && (
          <Button
            label="New board"
            icon={<PlusIcon size={20} color={palette.ink} strokeWidth={1.75} />}
            onPress={() => setNaming(true)}
          />
        )
      }
    >
      <SearchField label="Search boards" placeholder="Search by title or owner" search={search} />
      <LongList
        pages={boards}
        reading="Loading boards"
        searched={search.settled}
        empty={
          <Message
            kind="empty"
            title="No boards yet"
            text="A board is one sheet of gauges, lamps, figures and trends."
            action={build ? { label: 'New board', onPress: () => setNaming(true) } : undefined}
          />
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
      second={`${count} ${count === 1 ? 'readout' : 'readouts'}, ${board.ownerName}, ${formatMoment(board.updatedAt, zone, now)}`}
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

const styles = StyleSheet.create({ icon: { width: 40, alignItems: 'center' } });
