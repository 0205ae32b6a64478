import { useMemo, useState } from 'react';
import { useRouter } from 'expo-router';
import { ScrollView, StyleSheet, View } from 'react-native';
import { useStore } from 'zustand';
import {
  DEFAULT_SCALE,
  type Slot,
  type Asset,
  type Board,
  type Metric,
  type Readout,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';
import { useIndicatorsById } from '../api/indicators';
import { useBoard } from '../api/boards';
import { useAssetsById, useMetricsById } from '../api/catalogue';
import {
  isProblem,
  valuesRequests,
  valuesData,
  type ValuesData,
  metricsOfBoard,
  READOUT_FORMS,
  showsWords,
  traitsOfForm,
} from '@vivid-beacon/core/src/boards';
import { freshId, placeReadout } from '../boards/boardEdits';
import { BoardFiltersProvider } from '../boards/BoardFiltersContext';
import { useBoardEdits } from '../boards/useBoardEdits';
import { useReadoutData } from '../boards/useReadoutData';
import { QueryResult } from '../components/QueryResult';
import { Button } from '../components/Button';
import { CloseIcon, RedoIcon, UndoIcon } from '../components/icons';
import { IconButton } from '../components/IconButton';
import { useLeaving } from '../components/LeaveTray';
import { Message } from '../components/Message';
import { Page } from '../components/Page';
import { safeLink } from '../components/safeLink';
import { Sentence } from '../components/Sentence';
import { WordRow } from '../components/WordRow';
import { Words } from '../components/Words';
import { useKeys } from '../hooks/useKeys';
import { useLayout } from '../hooks/useLayout';
import { useNow } from '../hooks/useNow';
import { ReadoutView } from '../readouts/ReadoutView';
import { createReadoutDraftStore } from '../stores/readoutDraftStore';
import { usePalette } from '../theme/useTheme';
import { problemOf } from './editor/bandProblem';
import { readoutSentence, UNFOLD } from './editor/readoutSentence';
import { SLOT_TITLES, SlotPanel } from './editor/SlotPanel';

/** What is read for limits and ends, whatever the form: its values. */
const VALUES = { requests: valuesRequests, further: () => [], facts: () => [], data: valuesData };

interface ReadoutEditorScreenProps {
  readonly boardId: string;
  /** "new", or the id of a readout on the board. */
  readonly readoutId: string;
  /** A target band to begin with. */
  readonly band?: TargetBand | null;
}

/** Builds a readout with a sentence, its preview always in sight. */
export function ReadoutEditorScreen({ boardId, readoutId, band = null }: ReadoutEditorScreenProps) {
  const board = useBoard(boardId);
  const router = useRouter();
  return (
    <QueryResult query={board} reading="Loading the board">
      {(found) =>
        found.mayChange ? (
          <Editor board={found} readoutId={readoutId} band={band} />
        ) : (
          <Page title={found.title}>
            <Message
              kind="empty"
              title="This board is shared with you to see"
              text="Its owner can share it for changing. A copy of it is yours to change."
              action={{ label: 'Show the board', onPress: () => router.replace(`/boards/${boardId}`) }}
            />
          </Page>
        )
      }
    </QueryResult>
  );
}

function Editor({
  board,
  readoutId,
  band,
}: {
  readonly board: Board;
  readonly readoutId: string;
  readonly band: TargetBand | null;
}) {
  const palette = usePalette();
  const router = useRouter();
  const { wide } = useLayout();
  const now = useNow();
  const edits = useBoardEdits(board);
  const [store] = useState(() => {
    const there = board.document.readouts.find(({ id }) => id === readoutId) ?? null;
    const made = createReadoutDraftStore(there?.id ?? freshId(board.document), there);
    // A band passed in the address is a change like any other: it can be undone, and is saved only when
    // placed.
    if (band && there) made.getState().actions.change({ band });
    return made;
  });
  const { readout, open, past, future, actions } = useStore(store);
  const [unfolded, setUnfolded] = useState(false);
  const { byId } = useMetricsById(metricsOfBoard({ readouts: [readout] }));
  const metrics = useMemo(() => [...byId.values()], [byId]);
  const { byId: assets } = useAssetsById(readout.scope?.assetIds ?? []);
  const { byId: indicators } = useIndicatorsById([readout.indicatorId]);
  const back = (): void => router.navigate(`/boards/${board.id}`);
  const { ask, question } = useLeaving(past.length > 0, back);
  const wrong = wrongIn(readout);
  const place = (): void =>
    edits.change({ document: placeReadout(board.document, readout) }, () =>
      router.navigate({ pathname: '/boards/[boardId]', params: { boardId: board.id, placed: readout.id } }),
    );
  useKeys({ 'Ctrl+z': actions.undo, 'Ctrl+Shift+z': actions.redo, 'Ctrl+y': actions.redo });
  const shown = showsWords(readout) || readout.measures.length > 0;
  const small = traitsOfForm(readout.form).smallPreview && !readout.groupBy && readout.measures.length < 2;
  const { document } = board;

  const preview = (
    <BoardFiltersProvider
      filters={{
        window: document.window,
        scope: document.scope,
        hours: document.hours,
        focus: null,
        onFocus: () => undefined,
        onStretch: null,
        onKeep: (_, choices) => actions.change(choices),
        onBand: null,
      }}
    >
      <View style={[styles.preview, wide && styles.previewWide]}>
        {shown ? (
          <View style={small ? styles.small : undefined}>
            <ReadoutView readout={readout} />
          </View>
        ) : (
          <Message
            kind="empty"
            title="Nothing to show yet"
            text="Choose a metric; the preview then follows every choice."
          />
        )}
      </View>
    </BoardFiltersProvider>
  );
  const panel = (
    <>
      <View style={[styles.strip, { backgroundColor: palette.ground, borderColor: palette.ink }]}>
        <Sentence
          parts={readoutSentence(
            readout,
            byId,
            (id) => assets.get(id)?.name,
            wide || unfolded,
            (id) => indicators.get(id)?.name,
          )}
          open={open}
          onOpen={(key) => (key === UNFOLD ? setUnfolded(true) : actions.openSlot(key as Slot))}
        />
      </View>
      <View style={styles.panel}>
        <Words as="sectionHead" heading={2}>
          {SLOT_TITLES[showsWords(readout) && open !== 'appearance' ? 'words' : shown ? open : 'metric']}
        </Words>
        <PanelWithReading
          store={store}
          metrics={metrics}
          assets={assets}
          boardWindow={document.window}
          now={now}
        />
      </View>
    </>
  );
  return (
    <View style={styles.page} role="main">
      <View style={styles.head}>
        <IconButton icon={CloseIcon} name="Leave without placing" onPress={ask} />
        <View style={styles.title}>
          <Words as="pageTitle" heading={1} lines={1}>
            {readoutId === 'new' ? 'New readout' : 'Readout'}
          </Words>
        </View>
        <IconButton icon={UndoIcon} name="Undo" disabled={past.length === 0} onPress={actions.undo} />
        <IconButton icon={RedoIcon} name="Redo" disabled={future.length === 0} onPress={actions.redo} />
        <View style={styles.on}>
          <Words as="second" colour={palette.ink2} lines={1}>{`on ${board.title}`}</Words>
        </View>
      </View>
      <View style={[styles.forms, { borderBottomColor: palette.line }]}>
        <WordRow
          name="Form"
          options={READOUT_FORMS.map((value) => ({ value, label: traitsOfForm(value).label }))}
          chosen={readout.form}
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
          <ScrollView style={styles.keep}>{preview}</ScrollView>
          <ScrollView style={styles.scroll} keyboardShouldPersistTaps="handled">
            {panel}
          </ScrollView>
        </>
      )}
      <View style={[styles.dock, { borderTopColor: palette.ink, backgroundColor: palette.ground }]}>
        {edits.error && (
          <View role="alert">
            <Words
              as="body"
              colour={palette.breachT}
            >{`Could not place the readout. ${edits.error.message}`}</Words>
          </View>
        )}
        {wrong && (
          <Words as="second" colour={palette.breachT}>
            {wrong}
          </Words>
        )}
        <View style={styles.buttons}>
          <Button variant="quiet" label="Leave" onPress={ask} />
          <Button
            grow
            variant="primary"
            label="Place on board"
            disabled={!shown || wrong !== null || edits.saving}
            onPress={place}
          />
        </View>
      </View>
      {question}
    </View>
  );
}

/** The problem that prevents placing a readout; null = none. */
function wrongIn(readout: Readout): string | null {
  const { band, link } = readout;
  const secondBand = 'secondBand' in readout ? readout.secondBand : null;
  const align = 'align' in readout ? readout.align : null;
  const scale = 'scale' in readout ? readout.scale : DEFAULT_SCALE;
  for (const each of [band, secondBand]) {
    const inBand = each && problemOf(each);
    if (inBand) return inBand.message;
  }
  if (link && !safeLink(link))
    return 'The link is not a page of this app, a web address or an e-mail address.';
  if (align && !(Number.isInteger(align.days) && align.days >= 1 && align.days <= 3660))
    return 'Days since the start are a whole number from 1 to 3660.';
  if (scale.ends && scale.ends[0] >= scale.ends[1]) return 'The scale must begin below its end.';
  if (scale.logarithmic && scale.ends && scale.ends[0] <= 0) return 'A logarithmic scale begins above 0.';
  return null;
}

/** The open panel needs unit, decimals and values of what is shown. */
function PanelWithReading({
  store,
  metrics,
  assets,
  boardWindow,
  now,
}: {
  readonly store: ReturnType<typeof createReadoutDraftStore>;
  readonly metrics: readonly Metric[];
  readonly assets: ReadonlyMap<string, Asset>;
  readonly boardWindow: WindowSpec;
  readonly now: number;
}) {
  const readout = useStore(store, (state) => state.readout);
  // Limits and ends are typed in the unit itself, however the numbers are shown.
  const inUnits = useMemo(() => ({ ...readout, display: 'units' as const }), [readout]);
  const { data } = useReadoutData<ValuesData>(VALUES, inUnits, 0);
  const read = data && !isProblem(data) ? data : null;
  const values = read?.values ?? [];
  return (
    <SlotPanel
      store={store}
      metrics={metrics}
      assets={assets}
      boardWindow={boardWindow}
      unit={values[0]?.unit ?? ''}
      decimals={read?.decimals ?? 0}
      values={values.flatMap(({ value }) => (value === null ? [] : [value]))}
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
  // As high as it is, at most this: what is higher is scrolled, and lies over nothing.
  keep: { maxHeight: '38%', flexGrow: 0 },
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
