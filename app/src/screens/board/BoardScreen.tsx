import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import {
  formatMoment,
  resolveWindow,
  seenReadouts,
  type Board,
  type Interval,
  type WholeBoardVersion,
  type WindowSpec,
} from '@vivid-beacon/core';
import { withMatchingChoices } from '@vivid-beacon/core/src/boards';
import { useAssetsById } from '../../api/catalogue';
import { isGone } from '../../api/client';
import { useBoard, useBoardVersion } from '../../api/boards';
import { moveOnto, moveReadout, pasteReadout, placeReadout, removeReadout } from '../../boards/boardEdits';
import { resized } from '../../boards/boardGrid';
import { BoardFiltersProvider, type BoardFilters } from '../../boards/BoardFiltersContext';
import { filterParams, readFilters, type FilterChange, type FilterParams } from '@vivid-beacon/core';
import { localWindow } from '@vivid-beacon/core';
import { useBoardEdits } from '../../boards/useBoardEdits';
import { QueryResult, type PendingQuery } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { IconButton } from '../../components/IconButton';
import { CheckIcon, EditIcon, MoreIcon, PlusIcon } from '../../components/icons';
import { Message } from '../../components/Message';
import { Page } from '../../components/Page';
import { Tray } from '../../components/Tray';
import { Words } from '../../components/Words';
import { useKeys } from '../../hooks/useKeys';
import { useLayout } from '../../hooks/useLayout';
import { useNow } from '../../hooks/useNow';
import { RAIL_WINDOWS } from '../../rail/railWindows';
import { RailWords } from '../../rail/RailWords';
import { TimeRail } from '../../rail/TimeRail';
import { useClipboardStore } from '../../stores/clipboardStore';
import { usePalette } from '../../theme/useTheme';
import { AboutBoard } from './about/AboutBoard';
import type { BoardLook } from './about/BoardFiles';
import { BoardTools } from './BoardTools';
import { KeyHelp } from './KeyHelp';
import { ReadoutGrid } from './ReadoutGrid';
import { ScopeBar } from './ScopeBar';
import { SeenPart } from './SeenPart';
import { useBoardSpans } from './useBoardSpans';
import { useBoardZone } from './useBoardZone';
import { VersionStrip } from './VersionStrip';

/** One board: its readouts on one sheet, and the time rail under them. */
export function BoardScreen({ boardId }: { readonly boardId: string }) {
  const router = useRouter();
  const { version: asked } = useLocalSearchParams<{ version?: string }>();
  const board = useBoard(boardId);
  const version = useBoardVersion(boardId, asked ?? null);
  const back = (): void => router.navigate('/boards');
  const found = isGone(board.error) ? undefined : board.data;
  if (found && !asked) return <BoardSheet board={found} version={null} onBack={back} />;
  if (found && version.data) {
    return <BoardSheet key={asked} board={found} version={version.data} onBack={back} />;
  }
  const awaited: PendingQuery<unknown> = found ? version : board;
  return (
    <Page title="Board" onBack={back} backName="Back to boards">
      <QueryResult query={awaited} reading="Loading the board">
        {() => null}
      </QueryResult>
    </Page>
  );
}

/** The filters of a board from the address, and functions to change them. */
function useAddressFilters(
  board: Board,
  build: boolean,
): {
  filters: BoardFilters;
  /** The filters as the address says them. */
  look: BoardLook;
  change: (part: Partial<FilterChange>) => void;
  /** Goes back to the window before a stretch of time became it; null if none did. */
  letGo: (() => void) | null;
} {
  const router = useRouter();
  const params = useLocalSearchParams() as FilterParams;
  const { window, scope, hours, focus } = params;
  const said = useMemo(() => readFilters({ window, scope, hours, focus }), [window, scope, hours, focus]);
  const [held, setHeld] = useState<HeldWindow | null>(null);
  const change = useCallback(
    (part: Partial<FilterChange>): void => {
      if (part.window !== undefined) setHeld(null);
      router.setParams({ ...filterParams({ ...said, ...part }) });
    },
    [router, said],
  );
  const { document } = board;
  const filters = useMemo<BoardFilters>(
    () => ({
      window: said.window ?? document.window,
      scope: said.scope ?? document.scope,
      hours: said.hours === undefined ? document.hours : said.hours,
      focus: said.focus,
      onFocus: (assetId) => change({ focus: said.focus === assetId ? null : assetId }),
      onStretch: (stretch) => {
        change({ window: stretch });
        setHeld({ before: held ? held.before : said.window });
      },
      onKeep: null,
      onBand: build
        ? (readoutId, band) =>
            router.push({
              pathname: '/boards/[boardId]/readouts/[readoutId]',
              params: { boardId: board.id, readoutId, band: JSON.stringify(band) },
            })
        : null,
    }),
    [said, document, change, held, build, router, board.id],
  );
  return {
    filters,
    look: { window, scope, hours, focus },
    change,
    letGo: held && (() => change({ window: held.before })),
  };
}

/** The window before a stretch of time became it; null = the saved one. */
interface HeldWindow {
  readonly before: WindowSpec | null;
}

interface BoardSheetProps {
  readonly board: Board;
  /** An earlier version that is looked at; null = the board as it is. */
  readonly version: WholeBoardVersion | null;
  readonly onBack: () => void;
}

function BoardSheet({ board: current, version, onBack }: BoardSheetProps) {
  const board = version ? { ...current, ...versionPart(version) } : current;
  const palette = usePalette();
  const router = useRouter();
  const { wide, low } = useLayout();
  const build = current.mayChange && !version;
  const edits = useBoardEdits(board);
  const now = useNow();
  const [editing, setEditing] = useState(false);
  const [helping, setHelping] = useState(false);
  const [asking, setAsking] = useState(false);
  const [folded, setFolded] = useState(false);
  const { filters, look, change, letGo } = useAddressFilters(board, build);
  const latest = useRef({ document: board.document, edits });
  useEffect(() => {
    latest.current = { document: board.document, edits };
  });
  // The same between renders, so that readouts are not drawn again for nothing.
  const shared = useMemo<BoardFilters>(
    () => ({
      ...filters,
      onKeep: build
        ? (readoutId, choices) => {
            const { document, edits: now } = latest.current;
            const found = document.readouts.find(({ id }) => id === readoutId);
            if (found) now.change({ document: placeReadout(document, withMatchingChoices(found, choices)) });
          }
        : null,
    }),
    [filters, build],
  );
  const zone = useBoardZone(board);
  const [domain, setDomain] = useState<Interval | null>(null);
  const onDomain = useCallback(
    (next: Interval) =>
      setDomain((last) => (last?.start === next.start && last.end === next.end ? last : next)),
    [],
  );
  const { spans, findBreach } = useBoardSpans(board, filters, zone, domain);
  const { byId: focusable } = useAssetsById([filters.focus]);
  const copied = useClipboardStore((state) => state.readout);
  const { copy } = useClipboardStore((state) => state.actions);
  const { document } = board;
  const { shown, leftOut } = seenReadouts(document.readouts, board.unseen);
  const save = (next: Board['document']): void => edits.change({ document: next });
  const add = (): void => router.push(`/boards/${board.id}/readouts/new`);
  const paste = (): void => {
    if (copied) save(pasteReadout(document, copied, null));
  };
  const setWindow = (window: WindowSpec): void => change({ window });
  const [noBreach, setNoBreach] = useState<string | null>(null);
  const toBreach = async (step: -1 | 1): Promise<void> => {
    const next = await findBreach(resolveWindow(filters.window, now, zone), step, now);
    if (next) setWindow(localWindow(next, zone));
    setNoBreach(next ? null : `no ${step < 0 ? 'earlier' : 'later'} breach within five weeks`);
  };
  useKeys({
    d: () => setWindow(RAIL_WINDOWS.today),
    s: () => setWindow(RAIL_WINDOWS.week),
    m: () => setWindow(RAIL_WINDOWS.month),
    y: () => setWindow(RAIL_WINDOWS.year),
    w: () => globalThis.document.querySelector<HTMLElement>('[aria-label="Start of the window"]')?.focus(),
    ',': () => toBreach(-1),
    '.': () => toBreach(1),
    '?': () => setHelping(true),
    Escape: () => filters.focus && change({ focus: null }),
    ...(build && {
      n: add,
      e: () => setEditing(!editing),
      'Ctrl+z': () => edits.undo?.(),
      'Ctrl+Shift+z': () => edits.redo?.(),
      'Ctrl+y': () => edits.redo?.(),
      'Ctrl+v': paste,
    }),
  });
  const { placed } = useLocalSearchParams<{ placed?: string }>();
  const focused = filters.focus ? focusable.get(filters.focus) : undefined;
  const scopeBar = (
    <ScopeBar
      saved={document}
      scope={filters.scope}
      hours={filters.hours}
      focused={focused?.name ?? null}
      onLetGo={letGo}
      onChange={change}
      onHelp={() => setHelping(true)}
    />
  );
  return (
    <Page
      title={board.title}
      onBack={onBack}
      backName="Back to boards"
      full
      onScroll={setFolded}
      tools={
        <>
          <IconButton icon={MoreIcon} name="About this board" onPress={() => setAsking(true)} />
          {build && wide && (
            <Button
              label="Add readout"
              icon={<PlusIcon size={20} color={palette.ink} strokeWidth={1.75} />}
              onPress={add}
            />
          )}
          {build && !wide && <IconButton icon={PlusIcon} name="Add readout" onPress={add} />}
          {build && (
            <IconButton
              icon={editing ? CheckIcon : EditIcon}
              name={editing ? 'Done arranging' : 'Arrange and change'}
              onPress={() => setEditing(!editing)}
            />
          )}
        </>
      }
      top={
        <>
          {version && (
            <VersionStrip
              board={current}
              version={version}
              onClose={() => router.setParams({ version: undefined })}
            />
          )}
          {editing && (
            <BoardTools
              board={board}
              filters={filters}
              edits={edits}
              onPaste={copied ? paste : null}
              onDone={() => setEditing(false)}
            />
          )}
          {!low && scopeBar}
        </>
      }
      foot={
        <TimeRail
          window={filters.window}
          zone={zone}
          now={now}
          spans={spans}
          told={noBreach}
          onChange={setWindow}
          onDomain={onDomain}
          folded={low || (folded && !wide)}
        />
      }
    >
      {low && (
        <>
          <View style={wide ? styles.sheetWide : styles.sheet}>{scopeBar}</View>
          <RailWords window={filters.window} zone={zone} now={now} onChange={setWindow} />
        </>
      )}
      {edits.error && (
        <View role="alert">
          <Words as="body" colour={palette.breachT}>
            {`Could not save the board. ${edits.error.message}`}
          </Words>
        </View>
      )}
      {board.archivedAt !== null && (
        <Words as="body">
          {`In the archive since ${formatMoment(board.archivedAt, zone, now)}; the list of boards leaves it out.`}
        </Words>
      )}
      <SeenPart leftOut={editing ? 0 : leftOut.length} />
      {!editing && shown.length === 0 && leftOut.length > 0 && (
        <Message
          kind="empty"
          title="Nothing here for you"
          text="All readouts of this board show plants that you may not see."
        />
      )}
      {document.readouts.length === 0 && (
        <Message
          kind="empty"
          title="Nothing on this board yet"
          text="Add a gauge, a lamp, a figure or a trend of any metric."
          action={build ? { label: 'Add readout', onPress: add } : undefined}
        />
      )}
      <BoardFiltersProvider filters={shared}>
        <View style={[styles.sheet, wide && styles.sheetWide]}>
          <ReadoutGrid
            readouts={editing ? document.readouts : shown}
            wide={wide}
            editing={editing}
            placed={placed ?? null}
            onDrop={(id, onto) => save(moveOnto(document, id, onto))}
            actions={{
              edit: (readout) => router.push(`/boards/${board.id}/readouts/${readout.id}`),
              move: (readout, step) => save(moveReadout(document, readout.id, step)),
              resize: (readout, by) =>
                save({
                  ...document,
                  readouts: document.readouts.map((each) =>
                    each.id === readout.id ? resized(each, by) : each,
                  ),
                }),
              copy,
              duplicate: (readout) => save(pasteReadout(document, readout, readout.id)),
              remove: (readout) => save(removeReadout(document, readout.id)),
            }}
          />
        </View>
      </BoardFiltersProvider>
      <Tray title="About this board" open={asking} onClose={() => setAsking(false)}>
        {asking && <AboutBoard board={current} look={look} onDone={() => setAsking(false)} />}
      </Tray>
      <KeyHelp open={helping} build={build} onClose={() => setHelping(false)} />
    </Page>
  );
}

/** What a version shows in place of the board. */
const versionPart = ({ title, document, unseen }: WholeBoardVersion) => ({ title, document, unseen });

const styles = StyleSheet.create({ sheet: { marginHorizontal: -20 }, sheetWide: { marginHorizontal: -24 } });
