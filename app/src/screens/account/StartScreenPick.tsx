import { useState } from 'react';
import { View } from 'react-native';
import { START_SCREENS } from '@vivid-beacon/core/src/schemas/people';
import { useBoard } from '../../api/boards';
import { BoardPick } from '../../assets/BoardPick';
import { Tray } from '../../components/Tray';
import { WordRow } from '../../components/WordRow';

const NAMES: Readonly<Record<(typeof START_SCREENS)[number], string>> = {
  '/': 'On watch',
  '/boards': 'Boards',
  '/alarms': 'Alarms',
  '/flags': 'Flags',
  '/indicators': 'Indicators',
  '/losses': 'Losses',
  '/handover': 'Handover',
};
const A_BOARD = 'board';

/** Where somebody begins: one of the screens, or a board of their own choice. */
export function StartScreenPick({
  startAt,
  onChoose,
}: {
  readonly startAt: string;
  readonly onChoose: (startAt: string) => void;
}) {
  const [picking, setPicking] = useState(false);
  const boardId = /^\/boards\/(\d+)$/.exec(startAt)?.[1] ?? null;
  const board = useBoard(boardId ?? 'new');
  const called = board.data?.title ?? 'a board';
  return (
    <View>
      <WordRow
        name="Where you begin"
        options={[
          ...START_SCREENS.map((value) => ({ value: value as string, label: NAMES[value] })),
          { value: A_BOARD, label: boardId === null ? 'a board …' : `board “${called}”` },
        ]}
        chosen={boardId === null ? startAt : A_BOARD}
        onChoose={(value) => (value === A_BOARD ? setPicking(true) : onChoose(value))}
      />
      <Tray title="Board to begin with" open={picking} onClose={() => setPicking(false)}>
        {picking && (
          <BoardPick
            maxHeight={360}
            chosen={boardId}
            onChoose={(id) => {
              onChoose(`/boards/${id}`);
              setPicking(false);
            }}
          />
        )}
      </Tray>
    </View>
  );
}
