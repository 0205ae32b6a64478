import { LEVEL_WORDS } from '../../bands/targetBand';
import { lampMark } from '../../drawing/lampScene';
import { wordInk } from '../../drawing/palette';
import type { Mark } from '../../drawing/scene';
import { textWidth } from '../../drawing/textWidth';
import { valueBar, type BarScale } from '../../drawing/valueBar';
import { formatNumber } from '../../format/format';
import type { MeasureColumn } from '../groupsData';
import type { ReadoutValue } from '../readoutValues';
import { isLit, isThin } from '../stateWords';
import { TEXT, written } from './words';

/** Narrowest bar worth drawing, px. */
const LEAST_BAR = 28;
const GAP = 10;
const LAMP = 14;

/** The number of a cell as it is written; a dash without one. */
export const numberText = (value: number | null, { decimals }: Pick<MeasureColumn, 'decimals'>): string =>
  value === null ? '–' : formatNumber(value, decimals);

/** Room for the numbers of a column, px. */
export const numberRoom = (values: readonly (number | null)[], column: MeasureColumn): number =>
  Math.max(
    ...values.map((value) => textWidth(numberText(value, column), TEXT.figure.face, TEXT.figure.size)),
  );

interface CellOptions {
  readonly value: Pick<ReadoutValue, 'value' | 'level' | 'coverage'>;
  readonly column: MeasureColumn;
  readonly scale: BarScale;
  /** Room for the widest number of its column, px. */
  readonly room: number;
  readonly isChosen: boolean;
  /** Whether the lamp with its word stands under the number. */
  readonly hasLamp: boolean;
}

/** Height of a cell with a lamp under its number, and without, px. */
export const CELL_HEIGHT = { lamp: 40, plain: 24 } as const;

/** A value as a bar, its number and, if judged, its lamp with the word; `width` px wide. */
export function valueCell(
  { value, column, scale, room, isChosen, hasLamp }: CellOptions,
  width: number,
): Mark[] {
  const bar = width - room - GAP;
  const marks: Mark[] = [
    {
      kind: 'text',
      key: 'number',
      words: [{ x: width, y: 18, text: numberText(value.value, column) }],
      face: TEXT.figure.face,
      size: TEXT.figure.size,
      ink: isThin(value) ? 'ink3' : 'ink',
      anchor: 'end',
    },
  ];
  if (bar >= LEAST_BAR)
    marks.push({
      kind: 'group',
      key: 'bar',
      x: 0,
      y: 12,
      marks: valueBar({ ...value, band: column.band, scale, isChosen }, bar),
    });
  if (hasLamp && isLit(value, column.band)) {
    const word = LEVEL_WORDS[value.level];
    const wide = textWidth(word, TEXT.caption.face, TEXT.caption.size);
    marks.push(
      lampMark(value.level, 'lamp', width - wide - LAMP - 4, 25, LAMP),
      written([word], {
        key: 'word',
        x: width,
        y: 24,
        style: TEXT.caption,
        ink: wordInk(value.level),
        anchor: 'end',
      }),
    );
  }
  return marks;
}
