import { shapeInk, type Ink } from '../palette';
import type { Mark } from '../scene';
import { labelPoints } from './labelPoints';
import { linePathWithin } from '../linePath';
import { columnLabels, PLOT_NUMBER, type PlottedSeries } from './trendLayout';
import type { TrendPlot } from './trendPlot';

const FADE = [1, 0.72, 0.46, 0.24];
/** Margin of the clip, px, so that lines along the edge of the plot are not cut. */
const OVER = 6;
const WIDE = { subject: 1.8, other: 1.5, caution: 2.2, breach: 2.8 } as const;

/** Lines, areas and columns of a trend: the subject in ink, all others muted. */
export function lineMarks(trend: TrendPlot): Mark[] {
  const { lines, subject, channels, options } = trend;
  const first = lines.indexOf(subject);
  // Also judged: the first line in the other unit, if that unit has a band.
  const aside = lines.find(({ axis }) => axis !== subject.axis && channels[axis].length > 0);
  const quiet = lines.filter((each) => each !== subject && each !== aside && each.path !== '');
  const marks: Mark[] = [];
  lines.forEach(({ key, area }, i) => {
    if (area !== '')
      marks.push({
        kind: 'path',
        key: `${key} area`,
        d: area,
        fill: 'sea',
        fillOpacity: FADE[i % FADE.length] * 0.5,
      });
  });
  lines.forEach(({ key, columns }, i) => {
    if (columns.length > 0)
      marks.push({
        kind: 'path',
        key: `${key} columns`,
        d: columns.map(({ x, y, width, height }) => `M${x} ${y}h${width}v${height}h${-width}Z`).join(''),
        fill: i === first ? 'sea' : 'bar',
        fillOpacity: i === first ? 1 : FADE[i % FADE.length],
      });
  });
  const numbers = columnLabels(lines, options.decimals);
  if (numbers.length > 0) marks.push(plotNumbers('column numbers', numbers));
  // Muted lines look alike, so they share one path.
  if (quiet.length > 0) marks.push(line('quiet', quiet.map(({ path }) => path).join(''), 'bar', WIDE.other));
  if (aside) marks.push(...judgedLine(trend, aside, 'bar', WIDE.other));
  marks.push(...judgedLine(trend, subject, 'ink', WIDE.subject));
  return marks;
}

/** Values at the points of lines, as many as fit, the subject's first. */
export function pointNumbers({ lines, subject, layout, plot, options }: TrendPlot): Mark[] {
  const labelled = [subject, ...lines.filter((each) => each !== subject)].map(({ key, t, v, top, axis }) => ({
    key,
    points: t.flatMap((time, i) =>
      v[i] === null ? [] : [{ x: layout.x(time), y: layout.axes[axis].at(top[i]!), value: v[i] }],
    ),
  }));
  return [plotNumbers('point numbers', labelPoints(labelled, options.decimals, plot.width, plot.height))];
}

/** A line that changes colour and weight where it leaves Clear. */
function judgedLine(
  { channels, layout, plot, options }: TrendPlot,
  each: PlottedSeries,
  clear: Ink,
  wide: number,
): Mark[] {
  if (each.path === '') return [];
  const own = channels[each.axis];
  const outside = own.flatMap(({ top, bottom, level }, i): Mark[] => {
    if (level === 'clear') return [];
    const from = top - (i === own.length - 1 ? OVER : 0);
    const to = bottom + (i === 0 ? OVER : 0);
    const { at } = layout.axes[each.axis];
    // Straight lines: only the segments that enter the stretch. Steps and periods: the whole path, clipped.
    const d = options.mark === 'steps' ? each.path : linePathWithin(each.t, each.top, layout.x, at, from, to);
    if (d === '') return [];
    const clip = { x: -4, y: from, width: plot.width + 8, height: Math.max(0, to - from) };
    return [{ ...line(`${each.key} ${i}`, d, shapeInk(level), WIDE[level]), clip }];
  });
  return [line(each.key, each.path, clear, wide), ...outside];
}

const line = (key: string, d: string, stroke: Ink, strokeWidth: number): Mark & { kind: 'path' } => ({
  kind: 'path',
  key,
  d,
  stroke,
  strokeWidth,
  round: true,
});

const plotNumbers = (key: string, words: readonly { x: number; y: number; text: string }[]): Mark => ({
  kind: 'text',
  key,
  words,
  face: 'medium',
  size: PLOT_NUMBER,
  ink: 'ink',
  anchor: 'middle',
  outline: 'sheet',
});
