import type { Interval } from '../../time/interval';
import type { Ink } from '../palette';
import type { Mark } from '../scene';
import { starPath } from '../starPath';
import type { TrendPlot } from './trendPlot';

/** Narrower gaps have neither edges nor a label. */
const EDGES_FROM = 3;
const WORD_FROM = 44;

/** Marks along the time of a trend: gaps, the future, breaches, remarks, alarms and flags. */
export function alongMarks({ plot, layout, options }: TrendPlot): Mark[] {
  const { width, height } = plot;
  const { series, along } = options;
  const { window, gaps } = series[0].answer;
  const clip = (t: number): number => Math.max(0, Math.min(width, layout.x(t)));
  const overlaps = ({ start, end }: Interval): boolean => end > window.start && start < window.end;
  const isShown = (t: number): boolean => t >= window.start && t < window.end;
  const toCome = clip(layout.finishedUntil);
  const breaches = along.spans.filter((span) => span.level === 'breach' && overlaps(span));
  const remarks = along.remarks.filter(overlaps);
  const flags = (open: boolean): number[] =>
    along.flags.filter((flag) => flag.open === open && isShown(flag.at)).map(({ at }) => clip(at));
  // All marks of a kind form one shape, because a window may hold hundreds.
  const shape = (
    key: string,
    parts: readonly string[],
    paint: Omit<Mark & { kind: 'path' }, 'kind' | 'key' | 'd'>,
  ) => (parts.length === 0 ? [] : [{ kind: 'path' as const, key, d: parts.join(''), ...paint }]);
  const pin = (
    key: string,
    places: readonly number[],
    form: string,
    stroke: Ink,
    strokeWidth: number,
    fill: Ink,
  ) =>
    shape(
      key,
      places.map((x) => `M${x.toFixed(1)} ${form}`),
      { stroke, strokeWidth, fill, round: true },
    );
  return [
    ...(series.length === 1
      ? gapMarks(
          gaps.map(({ start, end }) => [clip(start), clip(end)] as const),
          height,
        )
      : []),
    ...(toCome < width
      ? [{ kind: 'hatch' as const, key: 'to come', x: toCome, y: 0, width: width - toCome, height }]
      : []),
    ...shape(
      'breaches',
      breaches.map(({ start, end }) => starPath((clip(start) + clip(end)) / 2, -11, 8, 4.9)),
      { fill: 'breach' },
    ),
    ...shape(
      'breach times',
      breaches.map(({ start, end }) => {
        const from = clip(start);
        return `M${from.toFixed(1)} ${height}v-4h${Math.max(2, clip(end) - from).toFixed(1)}v4Z`;
      }),
      { fill: 'breach' },
    ),
    ...pin(
      'alarms',
      along.alarms.filter(isShown).map(clip),
      `${height}v-9m0 0l-4 -5h8Z`,
      'ink',
      1.2,
      'sheet',
    ),
    ...pin('open flags', flags(true), `${height}v-19m0 0l8 3.5l-8 3.5`, 'sea', 1.6, 'sea'),
    ...pin('closed flags', flags(false), `${height}v-19m0 0l8 3.5l-8 3.5`, 'sea', 1.6, 'sheet'),
    ...shape(
      'remarks',
      remarks.map(({ start, end }) => {
        const from = clip(start);
        return `M${from.toFixed(1)} -1V-5H${Math.max(from + 4, clip(end)).toFixed(1)}V-1`;
      }),
      { stroke: 'sea', strokeWidth: 2 },
    ),
  ];
}

/** Hatched, with dashed edges and a label if wide enough. */
function gapMarks(gaps: readonly (readonly [from: number, to: number])[], height: number): Mark[] {
  const shown = gaps.filter(([from, to]) => to > from);
  if (shown.length === 0) return [];
  const wide = shown.filter(([from, to]) => to - from > EDGES_FROM);
  const worded = shown.filter(([from, to]) => to - from > WORD_FROM);
  return [
    ...shown.map(([from, to], i): Mark => ({
      kind: 'hatch',
      key: `gap ${i}`,
      x: from,
      y: 0,
      width: to - from,
      height,
    })),
    {
      kind: 'path',
      key: 'gap edges',
      d: wide.map(([from, to]) => `M${from} 0V${height}M${to} 0V${height}`).join(''),
      stroke: 'ink2',
      dash: '2 3',
    },
    {
      kind: 'text',
      key: 'gap words',
      words: worded.map(([from, to]) => ({ x: (from + to) / 2, y: -8, text: 'No data' })),
      face: 'medium',
      size: 13,
      ink: 'ink2',
      anchor: 'middle',
    },
  ];
}
