import { timeTicks } from '../drawing/trend/trendGeometry';
import type { Mark, Scene } from '../drawing/scene';
import { textWidth } from '../drawing/textWidth';
import { valueAxis } from '../drawing/valueAxis';
import { formatGraduation } from '../format/format';
import { stackedColumns } from '../stats/stacked';
import { heightsOf, reachOf, totalsBefore, type BreakdownData, type BreakdownPeriods } from './breakdownData';
import { numberMark, ROOM_FOR_NUMBER, toneOf } from './breakdownMarks';
import { TEXT } from './scene/words';

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
    const wide = Math.max(1, (x(periods.end[k]) - from) * 0.86);
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
    total === null || k >= periods.start.length
      ? []
      : [`M${x(periods.start[k])} ${axis.at(total)}H${x(periods.end[k])}`],
  );
  if (lines.length > 0)
    marks.push({ kind: 'path', key: 'before', d: lines.join(''), stroke: 'ink', strokeWidth: 1.5 });
  const last = stacks.findLastIndex((column, k) => column.length > 0 && periods.start[k] < now);
  if (last >= 0) {
    const middle =
      x(periods.start[last]) + Math.max(1, (x(periods.end[last]) - x(periods.start[last])) * 0.86) / 2;
    const wide = x(periods.end[last]) - x(periods.start[last]) >= ROOM_FOR_NUMBER;
    const named = wide ? stacks[last] : [];
    marks.push(
      numberMark(
        named.flatMap(({ of, from: low, to: high }) => {
          const [top, base] = [axis.at(high), axis.at(low)];
          return base - top < 14
            ? []
            : [{ x: middle, y: (top + base) / 2 + 4, text: String(drawn[of].i + 1) }];
        }),
      ),
    );
  }
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
