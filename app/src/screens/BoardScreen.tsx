import { useCallback, useMemo, useState } from 'react';
import { useRouter } from 'expo-router';
import { useQueries } from '@tanstack/react-query';
import { StyleSheet, View } from 'react-native';
import { worstSpans, type Board, type Interval, type LevelSpan } from '@vivid-beacon/core';
import { useSaveBoard } from '../api/changes';
import { askLevels, useBoard, useMetrics } from '../api/queries';
import { usePerson } from '../api/session';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { IconButton } from '../components/IconButton';
import { CheckIcon, EditIcon, PlusIcon } from '../components/icons';
import { Notice } from '../components/Notice';
import { Page } from '../components/Page';
import { Words } from '../components/Words';
import { useLayout } from '../hooks/useLayout';
import { useNow } from '../hooks/useNow';
import { TimeRail } from '../rail/TimeRail';
import { ReadoutView } from '../readouts/ReadoutView';
import { useBoardViewStore } from '../stores/boardViewStore';
import { usePalette } from '../theme/useTheme';
import { BoardTools } from './BoardTools';
import { moveReadout, removeReadout } from './boardEdits';
import { gridRows } from './boardGrid';
import { mayBuild } from './mayAct';
import { ReadoutTools } from './ReadoutTools';

/** One board: its readouts on one sheet, and the time rail under them. */
export function BoardScreen({ boardId }: { readonly boardId: string }) {
  const router = useRouter();
  const board = useBoard(boardId);
  const back = (): void => router.navigate('/boards');
  if (board.data) return <BoardSheet board={board.data} onBack={back} />;
  return (
    <Page title="Board" onBack={back} backName="Back to boards">
      <Answer query={board} reading="Reading the board">
        {() => null}
      </Answer>
    </Page>
  );
}

function BoardSheet({ board, onBack }: { readonly board: Board; readonly onBack: () => void }) {
  const palette = usePalette();
  const router = useRouter();
  const { wide } = useLayout();
  const build = mayBuild(usePerson());
  const save = useSaveBoard();
  const now = useNow();
  const [editing, setEditing] = useState(false);
  const looked = useBoardViewStore((state) => state.windows[board.id]);
  const { look } = useBoardViewStore((state) => state.actions);
  const window = looked ?? board.document.window;
  const zone = useBoardZone(board);
  const [domain, setDomain] = useState<Interval | null>(null);
  const onDomain = useCallback(
    (next: Interval) =>
      setDomain((last) => (last?.start === next.start && last.end === next.end ? last : next)),
    [],
  );
  const spans = useBoardSpans(board, domain);
  const { readouts } = board.document;
  const change = (document: Board['document']): void => save.mutate({ ...board, document });
  const add = (): void => router.push(`/boards/${board.id}/readouts/new`);
  return (
    <Page
      title={board.title}
      onBack={onBack}
      backName="Back to boards"
      full
      tools={
        build && (
          <>
            {wide && (
              <Button
                label="Add readout"
                icon={<PlusIcon size={20} color={palette.ink} strokeWidth={1.75} />}
                onPress={add}
              />
            )}
            {!wide && <IconButton icon={PlusIcon} name="Add readout" onPress={add} />}
            <IconButton
              icon={editing ? CheckIcon : EditIcon}
              name={editing ? 'Done arranging' : 'Arrange and change'}
              onPress={() => setEditing(!editing)}
            />
          </>
        )
      }
      top={editing && <BoardTools board={board} window={window} onDone={() => setEditing(false)} />}
      foot={
        <TimeRail
          window={window}
          zone={zone}
          now={now}
          spans={spans}
          onChange={(next) => look(board.id, next)}
          onDomain={onDomain}
        />
      }
    >
      {save.isError && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>
            {`Could not save the board. ${save.error.message}`}
          </Words>
        </View>
      )}
      {readouts.length === 0 && (
        <Notice
          kind="empty"
          title="Nothing on this board yet"
          text="Add a gauge, a lamp, a figure or a trend of any metric."
          action={build ? { label: 'Add readout', onPress: add } : undefined}
        />
      )}
      <View style={[styles.grid, { borderTopColor: palette.ink }, wide && styles.gridWide]}>
        {gridRows(readouts, wide).map((cells) => (
          <View key={cells[0].readout.id} style={[styles.row, { borderBottomColor: palette.line }]}>
            {cells.map(({ readout, span }, i) => (
              <View
                key={readout.id}
                style={[
                  {
                    flexGrow: 0,
                    flexShrink: 1,
                    flexBasis: `${(100 * span) / (wide ? 12 : 2)}%`,
                    minWidth: 0,
                  },
                  i > 0 && { borderLeftWidth: 1, borderLeftColor: palette.line },
                ]}
              >
                <ReadoutView readout={readout} boardWindow={window} />
                {editing && (
                  <ReadoutTools
                    title={readout.title ?? readout.form}
                    onEdit={() => router.push(`/boards/${board.id}/readouts/${readout.id}`)}
                    onMove={(step) => change(moveReadout(board.document, readout.id, step))}
                    onRemove={() => change(removeReadout(board.document, readout.id))}
                  />
                )}
              </View>
            ))}
          </View>
        ))}
      </View>
    </Page>
  );
}

/** The zone a board's window is told in: that of its first readout. */
function useBoardZone(board: Board): string {
  const metrics = useMetrics().data;
  const first = board.document.readouts[0]?.measure.metricId;
  return metrics?.find(({ id }) => id === first)?.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
}

const LONGEST_BY_THE_HOUR_MS = 35 * 86_400_000;

/** When any readout with a band was not Clear, over the rail's length: the worst level wins. */
function useBoardSpans(board: Board, domain: Interval | null): LevelSpan[] {
  const banded = useMemo(() => {
    const seen = new Set<string>();
    return board.document.readouts.filter(({ measure, band }) => {
      const key = JSON.stringify([measure, band]);
      return band !== null && !seen.has(key) && seen.add(key);
    });
  }, [board]);
  const results = useQueries({
    queries: banded.map(({ measure, band }) => ({
      queryKey: ['readings', 'levels', measure, band, domain],
      queryFn: ({ signal }: { signal: AbortSignal }) =>
        askLevels(
          {
            measure,
            band: band!,
            ...domain!,
            bucket: domain!.end - domain!.start > LONGEST_BY_THE_HOUR_MS ? 'day' : 'hour',
          },
          signal,
        ),
      enabled: domain !== null,
      staleTime: 60_000,
    })),
  });
  return worstSpans(
    results
      .flatMap(({ data }) => data ?? [])
      .filter(({ level }) => level === 'breach' || level === 'caution'),
  );
}

const styles = StyleSheet.create({
  grid: { marginHorizontal: -20, borderTopWidth: 1.5 },
  gridWide: { marginHorizontal: -24 },
  row: { flexDirection: 'row', borderBottomWidth: 1 },
});
