import { timeTicks } from '../drawing/trend/trendGeometry';
import type { Mark, PlacedText, Scene } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { valueAxis, type ValueAxis } from '../drawing/valueAxis';
import { formatGraduation } from '../format/format';
import { stackedColumns, type StackedPart } from '../stats/stacked';
import { heightsOf, reachOf, totalsBefore, type BreakdownData, type BreakdownPeriods } from './breakdownData';
import { numberMark, ROOM_FOR_NUMBER, toneOf } from './breakdownMarks';
import { TEXT } from './scene/words';

/** Width of a column, as a share of its period. */
const WIDTH = 0.86;

/**
 * Columns of stacked parts, by period, as amounts or as shares of each column; over an amount the total of the period of
 * the same number in the reference window, as a line.
 */
export function columnsOverTime(
  data: BreakdownData,
  periods: BreakdownPeriods,
  width: number,
  height: number,
): Scene {
  const { parts, readout, zone, now } = data;
  const isShares = readout.parts === 'sharesOverTime';
  const drawn = parts.flatMap((part, i) => (part.picked ? [{ part, i }] : []));
  const stacks = stackedColumns(
    drawn.map(({ part }) => part.course),
    periods.start.length,
    isShares,
  );
  const bottom = height - 20;
  const axis = isShares
    ? valueAxis(
        { ends: [0, 100], fromTarget: false, reversed: false, logarithmic: false },
        null,
        [],
        [bottom, 8],
      )
    : valueAxis(null, null, [0, ...heightsOf(data), ...(data.beside ?? [])], [bottom, 8]);
  const graduations = axis.ticks(4);
  const tick = { face: TEXT.caption.face, size: TEXT.caption.size } as const;
  const left =
    8 + Math.max(20, ...graduations.map((each) => textWidth(formatGraduation(each), tick.face, tick.size)));
  const reach = reachOf(periods);
  const x = (t: number): number => left + ((t - reach.start) / (reach.end - reach.start)) * (width - left);
  const marks: Mark[] = [
    {
      kind: 'path',
      key: 'lines',
      d: graduations.map((each) => `M${left} ${axis.at(each)}H${width}`).join(''),
      stroke: 'line',
    },
    {
      kind: 'text',
      key: 'graduations',
      words: graduations.map((each) => ({ x: left - 6, y: axis.at(each) + 4, text: formatGraduation(each) })),
      ...tick,
      ink: 'ink2',
      anchor: 'end',
    },
  ];
  stacks.forEach((column, k) => {
    const from = x(periods.start[k]);
    const wide = Math.max(1, (x(periods.end[k]) - from) * WIDTH);
    if (periods.start[k] >= now) return;
    if (column.length === 0) {
      marks.push({ kind: 'hatch', key: `none ${k}`, x: from, y: 8, width: wide, height: bottom - 8 });
      return;
    }
    const isFaint = !periods.covered[k] || periods.end[k] > now;
    marks.push({
      kind: 'group',
      key: `column ${k}`,
      opacity: isFaint ? 0.5 : 1,
      marks: column.map(({ of, from: low, to: high }) => {
        const [top, base] = [axis.at(high), axis.at(low)];
        const { part, i } = drawn[of];
        return {
          kind: 'rect',
          key: part.key,
          x: from,
          y: top,
          width: wide,
          height: Math.max(0.3, base - top - 0.5),
          ...toneOf(part, i),
        };
      }),
    });
  });
  const before = isShares ? [] : totalsBefore(data);
  const lines = before.flatMap((total, k) =>
    // A period that is not over stands for less than the whole one before.
    total === null || k >= periods.start.length || periods.end[k] > now
      ? []
      : [`M${x(periods.start[k])} ${axis.at(total)}H${x(periods.end[k])}`],
  );
  if (lines.length > 0)
    marks.push({ kind: 'path', key: 'before', d: lines.join(''), stroke: 'ink', strokeWidth: 1.5 });
  marks.push(numberMark(numbersIn(stacks, drawn, axis, (k) => [x(periods.start[k]), x(periods.end[k])])));
  const labels = timeTicks(reach, zone, width - left);
  marks.push(
    { kind: 'path', key: 'zero', d: `M${left} ${bottom}H${width}`, stroke: 'ink2' },
    {
      kind: 'text',
      key: 'times',
      words: labels.map(({ t, label }) => ({ x: x(t), y: height - 5, text: label })),
      ...tick,
      ink: 'ink2',
    },
  );
  return { width, height, marks, hits: [], spoken: '' };
}

/** Numbers of the parts in the highest column, where there is room for them. */
function numbersIn(
  stacks: readonly (readonly StackedPart[])[],
  drawn: readonly { readonly i: number }[],
  axis: ValueAxis,
  endsOf: (column: number) => readonly [number, number],
): PlacedText[] {
  const heights = stacks.map((column) => column.at(-1)?.to ?? 0);
  const highest = heights.indexOf(Math.max(...heights));
  const [from, to] = endsOf(highest);
  if (to - from < ROOM_FOR_NUMBER) return [];
  return stacks[highest].flatMap(({ of, from: low, to: high }) => {
    const [top, base] = [axis.at(high), axis.at(low)];
    if (base - top < 14) return [];
    return [{ x: from + ((to - from) * WIDTH) / 2, y: (top + base) / 2 + 4, text: String(drawn[of].i + 1) }];
  });
}
