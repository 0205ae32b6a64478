import type { TargetBand } from '../../bands/targetBand';
import { lampMark } from '../../drawing/lampScene';
import { wordInk } from '../../drawing/palette';
import type { Mark } from '../../drawing/scene';
import { textWidth } from '../../drawing/textWidth';
import { isLit, stateWords, type JudgedValue } from '../stateWords';
import { TEXT, written } from './words';

const LAMP = 20;
const GAP = 6;

/** Lamp, word and distance, centred in `width` (null = aligned left), with the top at `y`. */
export function stateLine(
  reading: JudgedValue,
  band: TargetBand | null,
  decimals: number,
  y: number,
  width: number | null,
): { readonly marks: readonly Mark[]; readonly height: number } {
  const words = stateWords(reading, band, decimals);
  const lit = isLit(reading, band);
  const own = textWidth(words, TEXT.strong.face, TEXT.strong.size) + (lit ? LAMP + GAP : 0);
  const x = width === null ? 0 : Math.max(0, (width - own) / 2);
  const ink = lit ? wordInk(reading.level) : 'ink2';
  const isPartial = reading.partial && reading.value !== null;
  return {
    marks: [
      ...(lit ? [lampMark(reading.level, 'lamp', x, y, LAMP)] : []),
      written([words], { key: 'state', x: x + (lit ? LAMP + GAP : 0), y, style: TEXT.strong, ink }),
      ...(isPartial
        ? [
            written(['unfinished period'], {
              key: 'partial',
              x: width === null ? (lit ? LAMP + GAP : 0) : width / 2,
              y: y + TEXT.strong.lineHeight,
              style: TEXT.caption,
              ink: 'ink2',
              anchor: width === null ? 'start' : 'middle',
            }),
          ]
        : []),
    ],
    height: TEXT.strong.lineHeight + (isPartial ? TEXT.caption.lineHeight : 0),
  };
}
