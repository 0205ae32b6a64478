import type { TrendAnswer } from '../api/readings';
import { sparkScene } from '../drawing/sparkScene';
import type { Mark, Scene } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { formatMoment, formatNumber, formatValue } from '../format/format';
import { periodOfSparkline } from '../time/automaticPeriod';
import { lengthOfWindow } from '../time/windowLength';
import { baseWords, changeWords } from './changeWords';
import { NO_CHOICES, ONE_VALUE } from './oneValue';
import type { ReadoutValue } from './readoutValues';
import { valuesRequests, valuesData, type ValuesData } from './valuesData';
import { isProblem, type ReadingRequest, type ReadoutInputs } from './readoutData';
import type { ReadoutFormOf } from './readoutForm';
import { rowsOf } from './scene/rows';
import { stateLine } from './scene/stateLine';
import { TEXT, wrapped, written } from './scene/words';
import { isThin, stateWords } from './stateWords';

/** The values, and for a single measure its trend. */
export interface FigureData extends ValuesData {
  readonly course: TrendAnswer | null;
}

export const SPARK_HEIGHT = 40;
export const MIN_SPARK_WIDTH = 20;
const MIN_COLUMNS = 10;

/** A number with its reference, and a small trend under it. */
export const figure: ReadoutFormOf<object, FigureData> = {
  ...ONE_VALUE,
  ...NO_CHOICES,
  label: 'Figure',
  columns: { one: 3, many: 4 },
  halfOnPhone: true,
  smallPreview: true,
  requests: (inputs) => {
    const asks = valuesRequests(inputs);
    return asks && [...asks, ...courseAsk(inputs)];
  },
  data: (inputs, answers) => {
    const data = valuesData(inputs, answers);
    if (isProblem(data)) return data;
    return { ...data, course: (answers[1] as TrendAnswer | undefined) ?? null };
  },
  scene: (data, { width }) => {
    if (data.values.length === 1) return oneFigure(data, width);
    return rowsOf(
      data.values.map((part) => ({ part, second: secondWords(data, part) })),
      data.decimals,
      width,
    );
  },
};

/** Text under a number in a list: its level, or its change if there is no band. */
export function secondWords({ readout, decimals }: ValuesData, part: ReadoutValue): string | undefined {
  if (readout.band || part.level === 'nodata') return stateWords(part, readout.band, decimals);
  return part.previous === null ? undefined : changeWords(part, decimals, baseWords(readout));
}

/** Text under a single number. */
export function figureWords(
  { readout, decimals, zone, now }: ValuesData,
  part: ReadoutValue,
): {
  readonly target: string | null;
  readonly change: string | null;
  readonly asOf: string;
} {
  const target = readout.band?.target ?? null;
  const isCompared = readout.compare !== 'none' || readout.reference !== undefined;
  const when = part.asOf === null ? null : formatMoment(part.asOf, zone, now);
  return {
    target: target === null ? null : `target ${formatValue(target, part.unit, decimals)}`,
    change: isCompared ? changeWords(part, decimals, baseWords(readout)) : null,
    asOf: when === null ? 'no sample' : `as of ${when}${part.partial ? ', unfinished period' : ''}`,
  };
}

/** The trend of a single measure; groups have none. */
function courseAsk({ readout, metrics, window, hours, view }: ReadoutInputs): ReadingRequest[] {
  const [measure, ...more] = readout.measures;
  if (readout.groupBy || !measure || more.length > 0 || view.width <= 0) return [];
  const zone = metrics.get(measure.metricId)?.zone ?? 'UTC';
  const bucket = periodOfSparkline(lengthOfWindow(window, zone));
  return [
    {
      kind: 'trend',
      ask: { measure, window, bucket, columns: Math.max(MIN_COLUMNS, Math.round(view.width)), hours },
      isExtra: true,
    },
  ];
}

function oneFigure(data: FigureData, width: number): Scene {
  const { readout, decimals, course } = data;
  const [part] = data.values;
  const { target, change, asOf } = figureWords(data, part);
  const text = part.value === null ? '–' : formatNumber(part.value, decimals);
  const size = Math.min(TEXT.hero.size, (width - 40) / textWidth(text, 'strong', 1));
  const marks: Mark[] = [
    written([text], {
      key: 'value',
      x: 0,
      y: 0,
      style: { ...TEXT.hero, size },
      ink: isThin(part) ? 'ink3' : 'ink',
    }),
    {
      kind: 'text',
      key: 'unit',
      words: [
        {
          x: textWidth(text, 'strong', size) + 5,
          y: TEXT.hero.lineHeight / 2 + 0.35 * size,
          text: part.unit,
        },
      ],
      face: 'regular',
      size: 14,
      ink: 'ink2',
    },
  ];
  let y: number = TEXT.hero.lineHeight + 4;
  if (readout.band || part.level === 'nodata') {
    const state = stateLine(part, readout.band, decimals, y, null);
    marks.push(...state.marks);
    y += state.height + 4;
  }
  for (const [key, words] of [
    ['target', target],
    ['change', change],
  ] as const) {
    if (words === null) continue;
    const lines = wrapped(words, TEXT.second, width);
    marks.push(written(lines, { key, x: 0, y, style: TEXT.second, ink: 'ink2' }));
    y += lines.length * TEXT.second.lineHeight + 4;
  }
  if (course && width >= MIN_SPARK_WIDTH) {
    marks.push({
      kind: 'group',
      key: 'course',
      x: 0,
      y,
      marks: sparkScene(course, width, SPARK_HEIGHT).marks,
    });
    y += SPARK_HEIGHT + 4;
  }
  marks.push(written([asOf], { key: 'as of', x: 0, y, style: TEXT.caption, ink: 'ink3' }));
  return {
    width,
    height: y + TEXT.caption.lineHeight,
    marks,
    hits: [],
    spoken: `${formatValue(part.value, part.unit, decimals)}, ${stateWords(part, readout.band, decimals)}`,
  };
}
