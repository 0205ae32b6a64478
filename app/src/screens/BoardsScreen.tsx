import { useState } from 'react';
import { useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { formatMoment, type Board } from '@vivid-beacon/core';
import { useSaveBoard } from '../api/changes';
import { useBoards } from '../api/queries';
import { usePerson } from '../api/session';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { Field } from '../components/Field';
import { BoardIcon, PlusIcon } from '../components/icons';
import { Notice } from '../components/Notice';
import { Page } from '../components/Page';
import { Row } from '../components/Row';
import { Tray } from '../components/Tray';
import { Words } from '../components/Words';
import { useNow } from '../hooks/useNow';
import { RAIL_WINDOWS } from '../rail/railWindows';
import { usePalette } from '../theme/useTheme';
import { mayBuild } from './mayAct';

/** All boards, and the button for a new one. */
export function BoardsScreen() {
  const palette = usePalette();
  const boards = useBoards();
  const [naming, setNaming] = useState(false);
  const build = mayBuild(usePerson());
  return (
    <Page
      title="Boards"
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
      <Answer query={boards} reading="Reading boards">
        {(rows) =>
          rows.length === 0 ? (
            <Notice
              kind="empty"
              title="No boards yet"
              text="A board is one sheet of gauges, lamps, figures and trends."
              action={build ? { label: 'New board', onPress: () => setNaming(true) } : undefined}
            />
          ) : (
            <>
              {rows.map((board, i) => (
                <BoardRow key={board.id} board={board} last={i === rows.length - 1} />
              ))}
            </>
          )
        }
      </Answer>
      <Tray title="New board" open={naming} onClose={() => setNaming(false)}>
        {naming && <NewBoard onDone={() => setNaming(false)} />}
      </Tray>
    </Page>
  );
}

function BoardRow({ board, last }: { readonly board: Board; readonly last: boolean }) {
  const palette = usePalette();
  const router = useRouter();
  const now = useNow();
  const count = board.document.readouts.length;
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
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

function NewBoard({ onDone }: { readonly onDone: () => void }) {
  const palette = usePalette();
  const router = useRouter();
  const save = useSaveBoard();
  const [title, setTitle] = useState('');
  const add = (): void =>
    save.mutate(
      { id: null, title, document: { version: 1, window: RAIL_WINDOWS.week, readouts: [] }, revision: 0 },
      {
        onSuccess: (board) => {
          onDone();
          router.push(`/boards/${board.id}`);
        },
      },
    );
  return (
    <>
      <Field label="Title" value={title} onChange={setTitle} onSubmitEditing={add} />
      {save.isError && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>
            {save.error.message}
          </Words>
        </View>
      )}
      <Button look="main" label="Make the board" disabled={save.isPending} onPress={add} />
    </>
  );
}

const styles = StyleSheet.create({ icon: { width: 40, alignItems: 'center' } });
