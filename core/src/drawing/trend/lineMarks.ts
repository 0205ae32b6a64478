import { shapeInk, type Ink } from '../palette';
import type { Mark } from '../scene';
import { levelOf } from '../../bands/targetBand';
import { tenths } from '../tenths';
import { labelPoints } from './labelPoints';
import { linePathWithin } from '../linePath';
import { columnLabels, PLOT_NUMBER, type PlottedSeries } from './trendLayout';
import type { TrendPlot } from './trendPlot';

const FADE = [1, 0.72, 0.46, 0.24];
/** Margin of the clip, px, so that lines along the edge of the plot are not cut. */
const OVER = 6;
/** Radius of the dot of a lone point, px. */
const DOT = 2.5;
const CIRCLE = `a${DOT} ${DOT} 0 1 0 ${2 * DOT} 0a${DOT} ${DOT} 0 1 0 ${-2 * DOT} 0Z`;
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
  // Muted lines of a pattern look alike, so they share one path.
  for (const dash of new Set(quiet.map((each) => each.dash))) {
    const d = quiet.flatMap((each) => (each.dash === dash ? each.path : [])).join('');
    marks.push({ ...line(`quiet ${dash ?? 'through'}`, d, 'bar', WIDE.other), dash });
  }
  marks.push(...quiet.flatMap((each) => loneMarks(trend, each, 'bar')));
  if (aside) marks.push(...judgedLine(trend, aside, 'bar', WIDE.other));
  marks.push(...judgedLine(trend, subject, 'ink', WIDE.subject), ...thinMarks(trend));
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
function judgedLine(trend: TrendPlot, each: PlottedSeries, clear: Ink, wide: number): Mark[] {
  const { channels, layout, plot, options } = trend;
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
  return [
    { ...line(each.key, each.path, clear, wide), dash: each.dash },
    ...outside,
    ...loneMarks(trend, each, clear),
  ];
}

/** A faint ring for each period whose value is of too little data to be judged or joined to the others. */
function thinMarks({ layout, plot, options }: TrendPlot): Mark[] {
  const rings = options.series.flatMap(({ key, answer: { thin = [], now } }) => {
    const axis = layout.series.find((each) => each.key === key)?.axis ?? 0;
    return thin.flatMap(({ start, end, value }) => {
      const y = layout.axes[axis].at(value);
      if (end > now || y < 0 || y > plot.height) return [];
      return [`M${tenths(layout.x((start + end) / 2) - DOT)} ${tenths(y)}${CIRCLE}`];
    });
  });
  if (rings.length === 0) return [];
  return [{ kind: 'path', key: 'thin', d: rings.join(''), stroke: 'ink3', strokeWidth: 1.2, fill: 'sheet' }];
}

/** A dot for each point that no line shows, in the colour of its level. */
function loneMarks(
  { layout, bands }: TrendPlot,
  { key, axis, t, v, top, lone }: PlottedSeries,
  clear: Ink,
): Mark[] {
  const band = bands[axis];
  const inkOf = (i: number): Ink => {
    const level = band ? levelOf(band, v[i]) : 'clear';
    return level === 'clear' ? clear : shapeInk(level);
  };
  return [...new Set(lone.map(inkOf))].map((fill) => ({
    kind: 'path',
    key: `${key} dots ${fill}`,
    d: lone
      .filter((i) => inkOf(i) === fill)
      .map((i) => `M${tenths(layout.x(t[i]) - DOT)} ${tenths(layout.axes[axis].at(top[i]!))}${CIRCLE}`)
      .join(''),
    fill,
  }));
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
