import { knownExtent } from '../drawing/knownExtent';
import { textWidth } from '../drawing/textWidth';
import { barScale, type BarScale } from '../drawing/valueBar';
import { formatNumber } from '../format/format';
import { TEXT } from './scene/words';
import type { TableData, TableRow } from './tableData';
import { NAMES_COLUMN } from './tableChoices';
import { isNote, type TableHead } from './tableColumns';

/** Heights of rows for a pointer and for fingers, px. */
export const ROW = { pointer: 36, finger: 44 } as const;
/** Sizes inside a table, px. */
export const INSIDE = { indent: 18, mark: 22, pad: 10, lamp: 14, bar: 64, course: 72, note: 170 } as const;
/** Least widths of columns under level and under turned heads, px. */
const LEAST_COLUMN = 76;
const LEAST_TURNED = 44;
/** Rows whose texts are measured; of more, some of each stretch are. */
const MOST_MEASURED = 2000;

/** A row as it is drawn: one of those that are open. */
export interface ShownRow {
  readonly row: TableRow;
  readonly isOpen: boolean;
}

/** Rows one under another: parts of a row only where it is open. */
export function shownRows(rows: readonly TableRow[], isOpen: (key: string) => boolean): ShownRow[] {
  return rows.flatMap((row) => {
    const open = row.parts.length > 0 && isOpen(row.key);
    return [{ row, isOpen: open }, ...(open ? shownRows(row.parts, isOpen) : [])];
  });
}

/** A column with its place in the table. */
export interface LaidColumn {
  readonly at: number;
  readonly head: TableHead;
  readonly width: number;
  /** Room for its widest number, px. */
  readonly room: number;
  readonly scale: BarScale;
  /** Whether bars stand beside its numbers, where there is room. */
  readonly bars: boolean;
}

/**
 * Widths of the names and of the columns; together they may be wider than there is room, and are then scrolled.
 * @param only the only column that is shown; null = all.
 */
export function tableLayout(
  data: TableData,
  width: number,
  only: number | null,
): { readonly names: number; readonly columns: readonly LaidColumn[] } {
  const all = shownRows(data.rows, () => true);
  const { cells, heads, widths } = data.readout;
  const hasBars = cells !== 'numbers';
  const least = heads === 'turned' ? LEAST_TURNED : LEAST_COLUMN;
  const given = new Map(widths.map((each) => [each.column, each.width]));
  const longest = Math.max(
    60,
    ...some(all).map(
      ({ row }) =>
        row.depth * INSIDE.indent + INSIDE.mark + textWidth(row.name, TEXT.name.face, TEXT.name.size),
    ),
  );
  const columns = data.heads.flatMap((head, at): LaidColumn[] => {
    if (only !== null && at !== only) return [];
    // Of one measure the widest number is one of the ends: the whole, the largest or the smallest.
    const values = all.map(({ row }) => row.cells[at].value);
    const extent = knownExtent(values);
    const texts =
      head.kind === 'group'
        ? all.map(({ row }) => cellText(row.cells[at].value, row.head ?? head))
        : [...extent, data.total[at]?.value ?? null, null].map((value) => cellText(value, head));
    const room = Math.max(...texts.map((text) => textWidth(text, TEXT.figure.face, TEXT.figure.size)));
    const bar = hasBars && hasBar(head) ? INSIDE.bar + 8 : 0;
    const hasLamps = head.band !== null || all.some(({ row }) => row.head?.band);
    const lamp = hasLamps ? INSIDE.lamp + 6 : 0;
    const content =
      head.kind === 'trend' ? INSIDE.course : isNote(head.kind) ? room + INSIDE.note : room + bar + lamp;
    return [
      {
        at,
        head,
        room,
        width: given.get(head.key) ?? Math.max(least, content + 2 * INSIDE.pad),
        scale: barScale([...extent, ...(data.besideHeads?.[head.key] ?? [])], head.band),
        bars: hasBars,
      },
    ];
  });
  const wide = columns.reduce((sum, each) => sum + each.width, 0);
  const names =
    given.get(NAMES_COLUMN) ??
    Math.min(longest + INSIDE.pad, Math.max(110, width - wide), Math.max(110, width * 0.45));
  // What is left over goes to the columns of no set width, so that bars are longer.
  const free = columns.filter(({ head }) => !given.has(head.key));
  const over = Math.max(0, width - names - wide) / Math.max(1, free.length);
  return {
    names,
    columns: columns.map((each) => (given.has(each.head.key) ? each : { ...each, width: each.width + over })),
  };
}

/** Whether numbers of such a column have bars beside them. */
export const hasBar = ({ kind }: TableHead): boolean => kind === 'measure' || kind === 'group';

/** Every so many-th, so that long tables are laid out quickly; names that are longer are shortened. */
function some<T>(all: readonly T[]): readonly T[] {
  const step = Math.ceil(all.length / MOST_MEASURED);
  return step <= 1 ? all : all.filter((_, i) => i % step === 0);
}

export const cellText = (value: number | null, { decimals }: TableHead): string =>
  value === null ? '–' : formatNumber(value, decimals);
