import { LEVEL_WORDS } from '../bands/targetBand';
import { fittedText } from '../drawing/fittedText';
import { knownExtent } from '../drawing/knownExtent';
import { lampMark } from '../drawing/lampScene';
import { linePath } from '../drawing/linePath';
import { ringOpacity } from '../drawing/ringScene';
import type { Mark } from '../drawing/scene';
import { BAR_HEIGHT, valueBar, type BarScale } from '../drawing/valueBar';
import { formatNumber, formatValue } from '../format/format';
import { TEXT } from './scene/words';
import { isLit, isThin } from './stateWords';
import { isNote, type TableCell, type TableHead } from './tableColumns';
import type { TableData, TableRow } from './tableData';
import { cellText, hasBar, INSIDE, type LaidColumn } from './tableLayout';

/* The cells of a table. */

const { pad: PAD, lamp: LAMP } = INSIDE;
const COURSE_HEIGHT = 20;

/** What a cell says. */
export const tableCellWords = (cell: TableCell, { name, unit, decimals, band }: TableHead): string =>
  [
    `${name} ${formatValue(cell.value, unit, decimals)}`,
    isThin(cell) ? `coverage ${formatNumber(cell.coverage * 100, 0)} %` : band ? LEVEL_WORDS[cell.level] : '',
  ]
    .filter(Boolean)
    .join(', ');

export interface CellState {
  readonly rowHeight: number;
  readonly chosen: boolean;
  readonly isSum: boolean;
  /** What its parts come to, by which its bar is divided; none = it is not. */
  readonly parts?: readonly number[];
}

/** The parts of an amount, largest first, where bars are divided by them; none that are missing or below zero. */
export function partsOfCell(
  { readout, columns }: TableData,
  row: TableRow,
  { at, head }: LaidColumn,
): readonly number[] {
  const of = row.cells[at].of;
  if (readout.cells !== 'parts' || head.kind !== 'measure' || !of || !columns[of.measure]?.addsUp) return [];
  return row.parts
    .flatMap(({ cells }) => cells[at].value ?? [])
    .filter((value) => value > 0)
    .sort((a, b) => b - a);
}

/** A bar divided by its parts, its middle at height 0; what they leave of the value is not filled. */
function dividedBar(value: number, parts: readonly number[], scale: BarScale, width: number): Mark[] {
  const x = (each: number): number => ((each - scale.low) / (scale.high - scale.low)) * width;
  let from = 0;
  const pieces = parts.map((part, i): Mark => {
    const left = x(from);
    from += part;
    return {
      kind: 'rect',
      key: `part ${i}`,
      x: left,
      y: -BAR_HEIGHT / 2,
      width: Math.max(0.5, x(from) - left - 1),
      height: BAR_HEIGHT,
      fill: 'sea',
      fillOpacity: ringOpacity(i),
    };
  });
  const whole = {
    kind: 'rect',
    key: 'whole',
    x: x(0),
    y: -BAR_HEIGHT / 2,
    width: Math.max(0.5, x(value) - x(0)),
    height: BAR_HEIGHT,
    stroke: 'line2',
  } as const;
  return [whole, ...pieces];
}

/** What is drawn in a cell. */
export function cellMarks(
  cell: TableCell,
  { head, width, room, scale, bars }: Omit<LaidColumn, 'at'>,
  { rowHeight: height, chosen, isSum, parts = [] }: CellState,
): Mark[] {
  if (isNote(head.kind)) return noteMarks(cell, head, { width, room, height });
  if (head.kind === 'trend') return [courseMark(cell.course ?? [], width, height, chosen)];
  const right = width - PAD;
  const middle = height / 2;
  const style = isSum ? TEXT.figure : { ...TEXT.figure, face: 'medium' as const };
  const lamp = head.band ? LAMP + 6 : 0;
  const bar = right - room - lamp - 8 - PAD;
  const isBar = bars && hasBar(head) && bar >= 28 && cell.value !== null;
  return [
    ...(isBar
      ? [
          {
            kind: 'group',
            key: 'bar',
            x: PAD,
            y: middle,
            marks:
              parts.length > 1
                ? dividedBar(cell.value, parts, scale, bar)
                : valueBar({ ...cell, band: head.band, scale, isChosen: chosen }, bar),
          } as const,
        ]
      : []),
    ...(head.band && isLit(cell, head.band) && cell.value !== null
      ? [lampMark(cell.level, 'lamp', right - room - lamp, middle - LAMP / 2, LAMP)]
      : []),
    {
      kind: 'text',
      key: 'number',
      words: [{ x: right, y: middle + 6, text: cellText(cell.value, head) }],
      face: style.face,
      size: 16,
      ink: isThin(cell) ? 'ink3' : 'ink',
      anchor: 'end',
    },
  ];
}

/** What the logs say: their number before the words, both from the left. */
function noteMarks(
  { value, text = '' }: TableCell,
  head: TableHead,
  { width, room, height }: { readonly width: number; readonly room: number; readonly height: number },
): Mark[] {
  const words = fittedText(text, TEXT.body.face, TEXT.body.size, width - 2 * PAD - room - 8);
  const at = (x: number, word: string): Mark => ({
    kind: 'text',
    key: `note ${x}`,
    words: [{ x, y: height / 2 + 5, text: word }],
    face: 'regular',
    size: TEXT.body.size,
    ink: value === null || value === 0 ? 'ink2' : 'ink',
  });
  if (value === null) return [at(PAD, '–')];
  return words === ''
    ? [at(PAD, value === 0 ? 'none' : cellText(value, head))]
    : [at(PAD, cellText(value, head)), at(PAD + room + 8, words)];
}

/** Values over time in a cell, on a scale of their own; missing ones leave a gap, one between gaps is a dot. */
function courseMark(
  course: readonly (number | null)[],
  width: number,
  height: number,
  chosen: boolean,
): Mark {
  const [low, high] = knownExtent(course);
  const top = (height - COURSE_HEIGHT) / 2;
  const x = (i: number): number => PAD + (i / Math.max(1, course.length - 1)) * (width - 2 * PAD);
  const y = (value: number): number =>
    top + (high === low ? 0.5 : 1 - (value - low) / (high - low)) * COURSE_HEIGHT;
  const at = course.map((_, i) => i);
  // A dot is a line of no length with a round end.
  const dots = at.filter(
    (i) => course[i] !== null && (course[i - 1] ?? null) === null && (course[i + 1] ?? null) === null,
  );
  const d = [
    linePath(at, course, x, y),
    ...dots.map((i) => `M${x(i).toFixed(1)} ${y(course[i]!).toFixed(1)}h0.1`),
  ].join('');
  return {
    kind: 'path',
    key: 'course',
    d,
    stroke: chosen ? 'sea' : 'ink',
    strokeWidth: 1.5,
    round: true,
  };
}
