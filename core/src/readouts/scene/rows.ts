import { formatNumber, formatValue } from '../../format/format';
import type { Ink } from '../../drawing/palette';
import type { Mark, Scene } from '../../drawing/scene';
import { textWidth } from '../../drawing/textWidth';
import type { ReadoutValue } from '../readoutValues';
import { isThin } from '../stateWords';
import { TEXT, wrapped, written } from './words';

/** One row of a list: symbol, name with a second line, side text, number. */
export interface ValueLine {
  readonly part: Pick<ReadoutValue, 'key' | 'name' | 'value' | 'level' | 'unit'>;
  readonly second?: string;
  /** Drawn in the middle of a square of 24 px before the name. */
  readonly left?: Mark;
  readonly nameInk?: Ink;
  readonly middle?: Scene;
}

const LEFT = 24;
const GAP = 10;
const LEAST = 46;
const UNIT = 14;

/** Rows with lines between them and numbers aligned right. */
export function rowsOf(lines: readonly ValueLine[], decimals: number, width: number): Scene {
  const marks: Mark[] = [];
  let y = 0;
  const indent = lines.some(({ left }) => left) ? LEFT + GAP : 0;
  const numbers = lines.map(({ part }) => (part.value === null ? '–' : formatNumber(part.value, decimals)));
  const room = Math.max(
    ...lines.map(({ part }, i) => {
      const unit = part.unit === '' ? 0 : textWidth(part.unit, 'regular', UNIT) + 4;
      return textWidth(numbers[i], TEXT.figure.face, TEXT.figure.size) + unit;
    }),
  );
  lines.forEach(({ part, second, left, nameInk = 'ink', middle }, i) => {
    const words = Math.max(40, width - indent - room - GAP - (middle ? middle.width + GAP : 0));
    const name = wrapped(part.name, TEXT.name, words);
    const more = second ? wrapped(second, TEXT.second, words) : [];
    const text = name.length * TEXT.name.lineHeight + more.length * TEXT.second.lineHeight;
    const height = Math.max(LEAST, text + 8, middle?.height ?? 0);
    const top = y + (height - text) / 2;
    const base = y + height / 2 + 6;
    const unitWidth = part.unit === '' ? 0 : textWidth(part.unit, 'regular', UNIT) + 4;
    const own: Mark[] = [
      ...(left
        ? [{ kind: 'group', key: 'left', x: 0, y: y + height / 2 - LEFT / 2, marks: [left] } as const]
        : []),
      written(name, { key: 'name', x: indent, y: top, style: TEXT.name, ink: nameInk }),
      ...(more.length > 0
        ? [
            written(more, {
              key: 'second',
              x: indent,
              y: top + name.length * TEXT.name.lineHeight,
              style: TEXT.second,
              ink: 'ink2' as const,
            }),
          ]
        : []),
      ...(middle
        ? [
            {
              kind: 'group',
              key: 'middle',
              x: width - room - GAP - middle.width,
              y: y + (height - middle.height) / 2,
              marks: middle.marks,
            } as const,
          ]
        : []),
      {
        kind: 'text',
        key: 'number',
        words: [{ x: width - unitWidth, y: base, text: numbers[i] }],
        face: TEXT.figure.face,
        size: TEXT.figure.size,
        ink: isThin(part) ? 'ink3' : 'ink',
        anchor: 'end',
      },
      ...(part.unit === ''
        ? []
        : [
            {
              kind: 'text',
              key: 'unit',
              words: [{ x: width, y: base, text: part.unit }],
              face: 'regular',
              size: UNIT,
              ink: 'ink2',
              anchor: 'end',
            } as const,
          ]),
      ...(i === lines.length - 1
        ? []
        : [{ kind: 'path', key: 'rule', d: `M0 ${y + height}H${width}`, stroke: 'line' } as const]),
    ];
    marks.push({ kind: 'group', key: part.key, marks: own });
    y += height + 1;
  });
  return {
    width,
    height: y,
    marks,
    hits: [],
    spoken: lines
      .map(
        ({ part, second }) =>
          `${part.name} ${formatValue(part.value, part.unit, decimals)}${second ? `, ${second}` : ''}`,
      )
      .join('; '),
  };
}
