import { lampMark } from '../drawing/lampScene';
import { wordInk, type Ink } from '../drawing/palette';
import { formatMoment } from '../format/format';
import { tercilesOf } from '../stats/terciles';
import { NO_CHOICES, ONE_VALUE } from './oneValue';
import type { ReadoutValue } from './readoutValues';
import type { ValuesData } from './valuesData';
import type { ReadoutFormOf } from './readoutForm';
import { rowsOf } from './scene/rows';
import { stackOf } from './scene/grid';
import { TEXT, wrapped, written } from './scene/words';
import { isLit, stateWords } from './stateWords';

/** A lamp by its level, or a list of lamps. */
export const lamp: ReadoutFormOf<object, ValuesData> = {
  ...ONE_VALUE,
  ...NO_CHOICES,
  label: 'Lamp',
  columns: { one: 3, many: 4 },
  halfOnPhone: true,
  smallPreview: true,
  scene: (data, { width }) => {
    const lines = lampLines(data);
    const rows = rowsOf(
      lines.map(({ part, name, second, nameInk, lit }) => ({
        part: { ...part, name },
        second,
        nameInk,
        left: lit ? lampMark(part.level, 'lamp', 0, 0, 24) : undefined,
      })),
      data.decimals,
      width,
    );
    if (!lines.some(({ relative }) => relative)) return rows;
    const words = wrapped(RELATIVE_WORDS, TEXT.caption, width);
    const note = written(words, { key: 'relative', x: 0, y: 0, style: TEXT.caption, ink: 'ink2' });
    const height = words.length * TEXT.caption.lineHeight;
    return stackOf(
      [
        { key: 'rows', scene: rows },
        { key: 'note', scene: { width, height, marks: [note], hits: [], spoken: RELATIVE_WORDS } },
      ],
      width,
      6,
    );
  },
};

/** Words for the terciles of a list without a band: where a value ranks, not whether it is good. */
export const RELATIVE_WORDS =
  'Thirds of this list, from its lowest to its highest value. Relative: no target band is set.';

export interface LampLine {
  readonly part: ReadoutValue;
  /** The name of the value; for a single value the word of its level. */
  readonly name: string;
  readonly nameInk: Ink | undefined;
  readonly lit: boolean;
  readonly second: string;
  /** Whether its level is only a tercile of the list. */
  readonly relative: boolean;
}

/** The lines of a list of lamps. Without a target band, lamps show the terciles of the list. */
export function lampLines({ values, readout, decimals, zone, now }: ValuesData): LampLine[] {
  const { band } = readout;
  const thirds = band ? null : tercilesOf(values.map(({ value }) => value));
  const alone = values.length === 1;
  return values.map((part, i) => {
    const lit = isLit(part, band);
    const state = stateWords(part, band, decimals);
    const when = part.asOf === null ? 'no sample' : `as of ${formatMoment(part.asOf, zone, now)}`;
    const third = thirds?.[i] ?? null;
    return {
      part,
      name: alone ? state : part.name,
      nameInk: alone && lit ? wordInk(part.level) : undefined,
      lit,
      second: third ?? (alone || part.asOf === null ? when : `${state}, ${when}`),
      relative: thirds !== null,
    };
  });
}
