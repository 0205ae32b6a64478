import { useMemo, useState } from 'react';
import { useRouter } from 'expo-router';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import { FORM_WORDS, READOUT_FORMS, type Board, type Metric } from '@vivid-beacon/core';
import { useSaveBoard } from '../api/changes';
import { useBoard, useMetrics } from '../api/queries';
import { Answer } from '../components/Answer';
import { Button } from '../components/Button';
import { CloseIcon } from '../components/icons';
import { IconButton } from '../components/IconButton';
import { Notice } from '../components/Notice';
import { Sentence } from '../components/Sentence';
import { WordRow } from '../components/WordRow';
import { Words } from '../components/Words';
import { useLayout } from '../hooks/useLayout';
import { useNow } from '../hooks/useNow';
import { ReadoutView } from '../readouts/ReadoutView';
import { useShownReading } from '../readouts/useShownReading';
import { createReadoutDraftStore, type Slot } from '../stores/readoutDraftStore';
import { usePalette } from '../theme/useTheme';
import { freshId, placeReadout } from './boardEdits';
import { problemOf } from './editor/BandPanel';
import { readoutSentence } from './editor/readoutSentence';
import { SLOT_TITLES, SlotPanel } from './editor/SlotPanel';

interface ReadoutEditorScreenProps {
  readonly boardId: string;
  /** "new", or the id of a readout on the board. */
  readonly readoutId: string;
}

/** Builds a readout with a sentence, its preview always in sight. */
export function ReadoutEditorScreen({ boardId, readoutId }: ReadoutEditorScreenProps) {
  const board = useBoard(boardId);
  const metrics = useMetrics();
  return (
    <Answer query={board} reading="Reading the board">
      {(found) => (
        <Answer query={metrics} reading="Reading metrics">
          {(rows) => <Editor board={found} readoutId={readoutId} metrics={rows} />}
        </Answer>
      )}
    </Answer>
  );
}

function Editor({
  board,
  readoutId,
  metrics,
}: {
  readonly board: Board;
  readonly readoutId: string;
  readonly metrics: readonly Metric[];
}) {
  const palette = usePalette();
  const router = useRouter();
  const { wide } = useLayout();
  const now = useNow();
  const save = useSaveBoard();
  const [store] = useState(() => {
    const there = board.document.readouts.find(({ id }) => id === readoutId) ?? null;
    return createReadoutDraftStore(there?.id ?? freshId(board.document), there);
  });
  const { readout, form, open, actions } = useStore(store);
  const byId = useMemo(() => new Map(metrics.map((metric) => [metric.id, metric])), [metrics]);
  const back = (): void => router.navigate(`/boards/${board.id}`);
  const wrong = readout?.band ? problemOf(readout.band) : null;
  const place = (): void =>
    save.mutate({ ...board, document: placeReadout(board.document, readout!) }, { onSuccess: back });

  const preview = (
    <View style={[styles.preview, wide && styles.previewWide]}>
      {readout ? (
        <View style={form === 'gauge' || form === 'lamp' || form === 'figure' ? styles.small : undefined}>
          <ReadoutView readout={readout} boardWindow={board.document.window} />
        </View>
      ) : (
        <Notice
          kind="empty"
          title="Nothing to show yet"
          text="Choose a metric; the preview then follows every choice."
        />
      )}
    </View>
  );
  const panel = (
    <>
      <View style={[styles.strip, { backgroundColor: palette.ground, borderColor: palette.ink }]}>
        <Sentence
          parts={readoutSentence(readout, byId)}
          open={open}
          onOpen={(key) => actions.openSlot(key as Slot)}
        />
      </View>
      <View style={styles.panel}>
        <Words as="sectionHead" heading={2}>
          {SLOT_TITLES[readout ? open : 'metric']}
        </Words>
        {readout ? (
          <PanelWithReading store={store} metrics={metrics} board={board} now={now} />
        ) : (
          <SlotPanel
            store={store}
            metrics={metrics}
            boardWindow={board.document.window}
            unit=""
            decimals={1}
            now={now}
          />
        )}
      </View>
    </>
  );
  return (
    <View style={styles.page} role="main">
      <View style={styles.head}>
        <IconButton icon={CloseIcon} name="Leave without placing" onPress={back} />
        <View style={styles.title}>
          <Words as="pageTitle" heading={1} lines={1}>
            {readoutId === 'new' ? 'New readout' : 'Readout'}
          </Words>
        </View>
        <View style={styles.on}>
          <Words as="second" colour={palette.ink2} lines={1}>{`on ${board.title}`}</Words>
        </View>
      </View>
      <View style={[styles.forms, { borderBottomColor: palette.line }]}>
        <WordRow
          name="Form"
          options={READOUT_FORMS.map((value) => ({ value, label: FORM_WORDS[value] }))}
          chosen={form}
          onChoose={actions.chooseForm}
        />
      </View>
      {wide ? (
        <View style={styles.sides}>
          <ScrollView style={styles.side}>{preview}</ScrollView>
          <ScrollView style={[styles.side, { borderLeftWidth: 1.5, borderLeftColor: palette.ink }]}>
            {panel}
          </ScrollView>
        </View>
      ) : (
        <>
          <View style={styles.keep}>{preview}</View>
          <ScrollView style={styles.scroll} keyboardShouldPersistTaps="handled">
            {panel}
          </ScrollView>
        </>
      )}
      <View style={[styles.dock, { borderTopColor: palette.ink, backgroundColor: palette.ground }]}>
        {save.isError && (
          <View role="alert">
            <Words
              as="body"
              colour={palette.breachT}
            >{`Could not place the readout. ${save.error.message}`}</Words>
          </View>
        )}
        <View style={styles.buttons}>
          <Button look="quiet" label="Leave" onPress={back} />
          <Button
            grow
            look="main"
            label="Place on board"
            disabled={!readout || wrong !== null || save.isPending}
            onPress={place}
          />
        </View>
      </View>
    </View>
  );
}

/** The open panel needs unit and decimals of the present reading. */
function PanelWithReading({
  store,
  metrics,
  board,
  now,
}: {
  readonly store: ReturnType<typeof createReadoutDraftStore>;
  readonly metrics: readonly Metric[];
  readonly board: Board;
  readonly now: number;
}) {
  const readout = useStore(store, (state) => state.readout)!;
  const { query, decimals } = useShownReading(readout, readout.window ?? board.document.window);
  return (
    <SlotPanel
      store={store}
      metrics={metrics}
      boardWindow={board.document.window}
      unit={query.data?.unit ?? ''}
      decimals={decimals}
      now={now}
    />
  );
}

const styles = StyleSheet.create({
  page: { flex: 1, minHeight: 0 },
  head: { flexDirection: 'row', alignItems: 'center', paddingTop: 8, paddingHorizontal: 8, gap: 4 },
  title: { flexShrink: 0 },
  on: { flex: 1, alignItems: 'flex-end', paddingRight: 12, minWidth: 0 },
  forms: { paddingHorizontal: 20, borderBottomWidth: 1 },
  keep: { maxHeight: '42%' },
  preview: { paddingHorizontal: 6, overflow: 'hidden' },
  previewWide: { padding: 20 },
  small: { maxWidth: 300, alignSelf: 'center', width: '100%' },
  sides: { flex: 1, flexDirection: 'row', minHeight: 0 },
  side: { flex: 1 },
  scroll: { flex: 1 },
  strip: { paddingHorizontal: 20, paddingVertical: 10, borderTopWidth: 1.5, borderBottomWidth: 1.5 },
  panel: { padding: 20, gap: 8 },
  dock: { borderTopWidth: 1.5, paddingHorizontal: 20, paddingVertical: 12, gap: 8 },
  buttons: { flexDirection: 'row', gap: 10 },
});
