import { fittedText } from '../drawing/fittedText';
import type { HitRegion, Mark, Scene } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { TEXT, wrapped, written } from './scene/words';
import { isNote, type TableHead } from './tableColumns';
import type { TableData } from './tableData';
import { INSIDE, type LaidColumn } from './tableLayout';

/* The heads of a table. */

const { mark: MARK, pad: PAD } = INSIDE;

/** Parts of the keys of hit regions that say what a tap does. */
export const TABLE_HITS = {
  sort: 'sort ',
  open: 'open ',
  row: 'row ',
  value: 'value ',
  note: 'note ',
  made: 'made ',
} as const;

const headLines = ({ name, unit, kind }: TableHead, width: number): string[] =>
  // A course on a scale of its own has no numbers that a unit would be of.
  wrapped([name, kind === 'trend' ? '' : unit].filter(Boolean).join(', '), TEXT.caption, width - 2 * PAD);

/** Whether a group that is a column is the focused asset. */
const isFocusedGroup = ({ groups }: TableData, { key }: TableHead, focus: string | null): boolean =>
  focus !== null && groups.some((group) => group.key === key && group.assetId === focus);

/** Heads of numbers can be turned; what the logs say has room for its own. */
const isTurned = ({ readout }: TableData, { kind }: TableHead): boolean =>
  readout.heads === 'turned' && !isNote(kind);

/** Room for turned heads, px; longer names are shortened. */
const TURNED = 150;

const turnedLines = ({ name, unit, kind }: TableHead): string[] =>
  [name, kind === 'trend' ? '' : unit]
    .filter(Boolean)
    .map((line) => fittedText(line, TEXT.caption.face, TEXT.caption.size, TURNED));

/** Height that the head of a column needs, px. */
export function heightOfHead(data: TableData, { head, width }: LaidColumn): number {
  if (!isTurned(data, head)) return headLines(head, width).length * TEXT.caption.lineHeight + 12;
  // Room for the arrow that a tap on it brings.
  const longest = turnedLines({ ...head, name: `↓ ${head.name}` }).map((line) =>
    textWidth(line, 'strong', TEXT.caption.size),
  );
  return Math.max(...longest) + 14;
}

/** The direction of a column that is sorted by, and its place among several. */
export const arrowOf = ({ readout }: TableData, column: number): string => {
  const at = readout.sort.findIndex((each) => each.column === column);
  if (at < 0) return '';
  return `${readout.sort[at].descending ? '↓' : '↑'}${at > 0 ? at + 1 : ''} `;
};

export function headOfNames(data: TableData, width: number, height: number): Scene {
  const word = `${arrowOf(data, -1)}Name`;
  return {
    width,
    height,
    marks: [
      written([word], {
        key: 'name',
        x: MARK,
        y: height - TEXT.caption.lineHeight - 5,
        style: TEXT.caption,
        ink: 'ink2',
      }),
      { kind: 'path', key: 'rule', d: `M0 ${height - 0.5}H${width}`, stroke: 'line2' },
    ],
    hits: [
      {
        key: `${TABLE_HITS.sort}-1`,
        spoken: 'Sort by name',
        shape: { kind: 'box', x: 0, y: 0, width, height },
      },
    ],
    spoken: '',
  };
}

export function headOfCells(
  data: TableData,
  columns: readonly LaidColumn[],
  { wide, height, focus }: { readonly wide: number; readonly height: number; readonly focus: string | null },
): Scene {
  const marks: Mark[] = [{ kind: 'path', key: 'rule', d: `M0 ${height - 0.5}H${wide}`, stroke: 'line2' }];
  const hits: HitRegion[] = [];
  let x = 0;
  for (const { at, head, width } of columns) {
    const arrow = head.kind === 'group' ? '' : arrowOf(data, at);
    if (head.kind === 'group' && isFocusedGroup(data, head, focus))
      marks.push(
        { kind: 'rect', key: `${head.key} chosen`, x, y: 0, width, height, fill: 'water' },
        { kind: 'rect', key: `${head.key} edge`, x, y: 0, width, height: 3, fill: 'sea' },
      );
    const named = { ...head, name: arrow + head.name };
    const lines = isTurned(data, head) ? turnedLines(named) : headLines(named, width);
    const text = {
      key: head.key,
      style: arrow === '' ? TEXT.caption : ({ ...TEXT.caption, face: 'strong' } as const),
      ink: arrow === '' ? 'ink2' : 'ink',
    } as const;
    if (isTurned(data, head)) {
      // Turned to be read from below, its end at the rule and its middle over the numbers.
      const place = { cx: x + width - PAD - (lines.length * TEXT.caption.lineHeight) / 2, cy: height - 6 };
      const top = place.cy - (lines.length * TEXT.caption.lineHeight) / 2;
      marks.push({
        kind: 'group',
        key: `${head.key} turned`,
        turned: { degrees: -90, ...place },
        marks: [written(lines, { ...text, x: place.cx, y: top })],
      });
    } else {
      marks.push(
        written(lines, {
          ...text,
          x: isNote(head.kind) ? x + PAD : x + width - PAD,
          y: height - lines.length * TEXT.caption.lineHeight - 5,
          anchor: isNote(head.kind) ? 'start' : 'end',
        }),
      );
    }
    const shape = { kind: 'box', x, y: 0, width, height } as const;
    if (head.kind !== 'group')
      hits.push({ key: `${TABLE_HITS.sort}${at}`, spoken: `Sort by ${head.name}`, shape });
    else if (data.groups.some((group) => group.key === head.key && group.assetId !== null))
      hits.push({ key: TABLE_HITS.row + head.key, spoken: `${head.name}. Focus on it or release it`, shape });
    x += width;
  }
  return { width: wide, height, marks, hits, spoken: '' };
}
