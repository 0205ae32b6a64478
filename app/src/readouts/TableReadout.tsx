import { useMemo, useRef, useState, type ReactNode } from 'react';
import {
  ScrollView,
  StyleSheet,
  View,
  type NativeScrollEvent,
  type NativeSyntheticEvent,
} from 'react-native';
import {
  lampLegend,
  ROW,
  shownRows,
  tableLayout,
  tableParts,
  tableRows,
  tableWords,
  NAMES_COLUMN,
  TABLE_HITS,
  withWidth,
  type ColumnWidth,
  type LaidColumn,
  type SortedColumn,
  type TableData,
  type TableRow,
} from '@vivid-beacon/core/src/boards';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { PointedScene } from '../charts/PointedScene';
import { SceneView } from '../charts/SceneView';
import { Button } from '../components/Button';
import { Tray } from '../components/Tray';
import { WordRow } from '../components/WordRow';
import { Words } from '../components/Words';
import { usePalette } from '../theme/useTheme';
import { ColumnHandles, type ResizableColumn } from './ColumnHandles';
import { ComputedTray, type MadeCell } from './ComputedTray';
import type { DrawProps } from './drawProps';
import { tableText } from './tableText';

/** Below this width a table shows one column of numbers at a time. */
const ALL_COLUMNS_FROM = 520;
/** Height of a table that scrolls, px, and rows drawn beyond what is seen. */
const TALLEST = 620;
const BEYOND = 6;
const MOST_SORTED = 3;
const RECENT_DAYS = [1, 3, 7, 14, 28] as const;

/** Rows that open to their parts; a head sorts, a name focuses, a number opens how it was made. */
export function TableReadout({ data, title, width, onOpen, onTry }: DrawProps<TableData>) {
  const palette = usePalette();
  const { focus, onFocus } = useBoardFilters();
  const [opened, setOpened] = useState<ReadonlySet<string>>(NONE);
  const [column, setColumn] = useState(0);
  const [from, setFrom] = useState(0);
  const [copied, setCopied] = useState(false);
  const [said, setSaid] = useState<{ readonly title: string; readonly text: string } | null>(null);
  const [making, setMaking] = useState<MadeCell | null>(null);
  const sideways = useSideways();
  const narrow = width < ALL_COLUMNS_FROM && data.heads.length > 1;
  const rowHeight = narrow ? ROW.finger : ROW.pointer;
  const only = narrow ? Math.min(column, data.heads.length - 1) : null;
  // A column that is being dragged; its width is a choice once it is let go.
  const [dragged, setDragged] = useState<ColumnWidth | null>(null);
  const { names, columns } = useMemo(() => {
    const { readout } = data;
    const widths = dragged ? withWidth(readout.widths, dragged.column, dragged.width) : readout.widths;
    return tableLayout({ ...data, readout: { ...readout, widths } }, width, only);
  }, [data, width, only, dragged]);
  const rows = useMemo(() => shownRows(data.rows, (key) => opened.has(key)), [data, opened]);
  const scrolls = rows.length * rowHeight > TALLEST;
  const seen = Math.ceil(TALLEST / rowHeight) + 2 * BEYOND;
  const first = scrolls ? Math.max(0, Math.min(from, rows.length - seen)) : 0;
  const slice = useMemo(
    () => (scrolls ? rows.slice(first, first + seen) : rows),
    [rows, scrolls, first, seen],
  );
  const parts = useMemo(
    () => tableParts(data, { rows: slice, names, columns, focus, rowHeight }),
    [data, slice, names, columns, focus, rowHeight],
  );
  if (width === 0) return null;
  const press = (key: string): void => {
    const { sort, open, row, value, note, made } = TABLE_HITS;
    if (key.startsWith(sort)) onTry({ sort: sortedBy(data.readout.sort, Number(key.slice(sort.length))) });
    else if (key.startsWith(open)) setOpened(toggled(opened, key.slice(open.length)));
    else if (key.startsWith(row)) {
      const name = key.slice(row.length);
      // A group can be a column.
      const found =
        rows.find((each) => each.row.key === name)?.row ?? data.groups.find((each) => each.key === name);
      if (found?.assetId) onFocus(found.assetId);
    } else {
      const kind = [note, made].find((each) => key.startsWith(each)) ?? value;
      const rest = key.slice(kind.length);
      const at = Number(rest.slice(0, rest.indexOf(' ')));
      const of = rest.slice(rest.indexOf(' ') + 1);
      const found = rows.find((each) => each.row.key === of)?.row;
      const cell = (of === '' ? data.total : found?.cells)?.[at];
      if (kind === made)
        setMaking({
          name: of === '' ? 'Together' : found!.name,
          cells: of === '' ? data.total : found!.cells,
          at,
        });
      else if (kind === note && found && cell?.text)
        setSaid({ title: `${found.name}: ${data.heads[at].name}`, text: cell.text });
      else if (cell?.of) onOpen(cell.of);
    }
  };
  const handles = (of: readonly ResizableColumn[]): ReactNode => (
    <ColumnHandles
      columns={of}
      height={parts.headCells.height}
      onDrag={(key, to) => setDragged({ column: key, width: to })}
      onSet={(key, to) => {
        setDragged(null);
        onTry({ widths: withWidth(data.readout.widths, key, to) });
      }}
    />
  );
  const legend = lampLegend(data, width);
  const onScroll = ({ nativeEvent }: NativeSyntheticEvent<NativeScrollEvent>): void =>
    setFrom(Math.max(0, Math.floor(nativeEvent.contentOffset.y / rowHeight) - BEYOND));
  const groups = keysWithParts(data.rows);
  const all = groups.length > 0 && groups.every((key) => opened.has(key));
  return (
    <View style={styles.table}>
      {narrow && (
        <WordRow
          name="Column"
          options={data.heads.map(({ name }, i) => ({ value: String(i), label: name }))}
          chosen={String(only)}
          onChoose={(value) => setColumn(Number(value))}
        />
      )}
      {data.heads.some(({ kind }) => kind === 'recent' || kind === 'recentDaily') && (
        <WordRow
          name="Last days"
          options={RECENT_DAYS.map((days) => ({
            value: String(days),
            label: days === 1 ? 'last 24 h' : `last ${days} days`,
          }))}
          chosen={String(data.readout.recentDays)}
          onChoose={(days) => onTry({ recentDays: Number(days) })}
        />
      )}
      <Pane
        parts={[parts.headNames, parts.headCells]}
        name={`${title}, heads`}
        onPress={press}
        sideways={sideways}
        over={narrow ? null : [handles(namesAsColumn(names)), handles(columnEnds(columns))]}
      />
      <ScrollView style={scrolls && styles.tall} onScroll={onScroll} scrollEventThrottle={16}>
        <View style={{ height: rows.length * rowHeight }}>
          <View style={[styles.slice, { top: first * rowHeight }]}>
            <Pane
              parts={[parts.names, parts.cells]}
              name={title}
              told={tableWords(data)}
              onPress={press}
              sideways={sideways}
            />
          </View>
        </View>
      </ScrollView>
      {data.total.length > 0 && (
        <Pane
          parts={[parts.totalNames, parts.totalCells]}
          name={`${title}, together`}
          onPress={press}
          sideways={sideways}
        />
      )}
      {legend.height > 0 && <SceneView scene={legend} />}
      <Words as="caption" colour={palette.ink2}>
        {tableWords(data)}
      </Words>
      {making && (
        <ComputedTray
          data={data}
          {...making}
          onOpen={(part) => {
            setMaking(null);
            onOpen(part);
          }}
          onClose={() => setMaking(null)}
        />
      )}
      <Tray title={said?.title ?? ''} open={said !== null} onClose={() => setSaid(null)}>
        <Words as="body">{said?.text ?? ''}</Words>
      </Tray>
      <View style={styles.buttons}>
        {groups.length > 0 && (
          <Button
            variant="quiet"
            label={all ? 'Close all' : 'Open all'}
            onPress={() => setOpened(all ? NONE : new Set(groups))}
          />
        )}
        <Button
          variant="quiet"
          label={copied ? 'Copied' : 'Copy as text'}
          onPress={() =>
            void navigator.clipboard.writeText(tableText(tableRows(data))).then(() => setCopied(true))
          }
        />
      </View>
    </View>
  );
}

const NONE: ReadonlySet<string> = new Set();

interface Sideways {
  readonly join: (view: ScrollView | null) => void;
  readonly follow: (event: NativeSyntheticEvent<NativeScrollEvent>) => void;
}

/** Heads, rows and the total are scrolled sideways together. */
function useSideways(): Sideways {
  const views = useRef(new Set<ScrollView>());
  const at = useRef(0);
  return useMemo(
    () => ({
      join: (view) => {
        if (view) views.current.add(view);
      },
      follow: ({ nativeEvent }) => {
        const { x } = nativeEvent.contentOffset;
        if (Math.abs(x - at.current) < 1) return;
        at.current = x;
        for (const each of views.current) each.scrollTo({ x, animated: false });
      },
    }),
    [],
  );
}

/** Names that stay and cells that scroll sideways beside them. */
function Pane({
  parts: [left, right],
  name,
  told = '',
  sideways,
  onPress,
  over = null,
}: {
  readonly parts: readonly [
    Parameters<typeof SceneView>[0]['scene'],
    Parameters<typeof SceneView>[0]['scene'],
  ];
  readonly name: string;
  /** What screen readers are told of the cells. */
  readonly told?: string;
  readonly sideways: Sideways;
  readonly onPress: (key: string) => void;
  /** What lies over the names and over the cells. */
  readonly over?: readonly [ReactNode, ReactNode] | null;
}) {
  const cells = (
    <View>
      <PointedScene scene={{ ...right, spoken: told }} name={name} parts onPress={onPress} />
      {over?.[1]}
    </View>
  );
  return (
    <View style={styles.pane}>
      <View>
        <PointedScene scene={left} name={`${name}, names of the rows`} parts onPress={onPress} />
        {over?.[0]}
      </View>
      <ScrollView
        horizontal
        style={styles.sideways}
        ref={sideways.join}
        onScroll={sideways.follow}
        scrollEventThrottle={16}
      >
        {cells}
      </ScrollView>
    </View>
  );
}

/** The names as a column that can be made wider. */
const namesAsColumn = (width: number): ResizableColumn[] => [
  { key: NAMES_COLUMN, name: 'the names', end: width, width },
];

/** Where the columns end. */
function columnEnds(columns: readonly LaidColumn[]): ResizableColumn[] {
  let end = 0;
  return columns.map(({ head, width }) => {
    end += width;
    return { key: head.key, name: head.name, end, width };
  });
}

/** A column first, the other way round where it was first already; those before it decide ties. */
function sortedBy(sort: readonly SortedColumn[], column: number): SortedColumn[] {
  const [first] = sort;
  // Numbers begin with the largest, names with the first letter.
  const descending = first?.column === column ? !first.descending : column >= 0;
  return [{ column, descending }, ...sort.filter((each) => each.column !== column)].slice(0, MOST_SORTED);
}

function toggled(keys: ReadonlySet<string>, key: string): ReadonlySet<string> {
  const next = new Set(keys);
  if (!next.delete(key)) next.add(key);
  return next;
}

const keysWithParts = (rows: readonly TableRow[]): string[] =>
  rows.flatMap(({ key, parts }) => (parts.length > 0 ? [key, ...keysWithParts(parts)] : []));

const styles = StyleSheet.create({
  table: { gap: 6 },
  pane: { flexDirection: 'row' },
  sideways: { flexGrow: 1, flexShrink: 1 },
  tall: { maxHeight: TALLEST },
  slice: { position: 'absolute', left: 0, right: 0 },
  buttons: { flexDirection: 'row', gap: 8, flexWrap: 'wrap' },
});
