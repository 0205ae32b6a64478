import { formatNumber } from '../../format/format';
import type { Mark, PlacedText, TextMark } from '../scene';
import { BREAK_HEIGHT } from './brokenAxis';
import type { PlotAxis } from './plotAxis';
import { sinceTicks, timeTicks } from './trendGeometry';
import type { TrendPlot } from './trendPlot';

const LABEL = { face: 'medium', size: 12, ink: 'ink2' } as const;
/** Room for a time label inside the plot, px; it would extend beyond the edge otherwise. */
const TIME_LABEL = 26;

/** Value graduations on the left, those of a second unit on the right, local time below. */
export function axisMarks(trend: TrendPlot): Mark[] {
  const { layout, plot, options } = trend;
  const { window, zone } = options.series[0].answer;
  const { width, height } = plot;
  const times = options.since ? sinceTicks(window, width) : timeTicks(window, zone, width);
  const at = times.map(({ t, label }) => ({ x: layout.x(t), label }));
  return [
    ...layout.axes.flatMap((_, k) => valueMarks(trend, k)),
    { kind: 'path', key: 'line of time', d: `M0 ${height}H${width}`, stroke: 'ink', strokeWidth: 1.5 },
    {
      kind: 'group',
      key: 'ticks',
      name: 'ticks',
      marks: [
        {
          kind: 'path',
          key: 'ticks',
          d: at.map(({ x }) => `M${x.toFixed(1)} ${height}v5`).join(''),
          stroke: 'ink2',
        },
        {
          kind: 'text',
          key: 'labels',
          words: at.flatMap(({ x, label }): PlacedText[] =>
            x < width - TIME_LABEL ? [{ x: x + 3, y: height + 17, text: label }] : [],
          ),
          ...LABEL,
        },
      ],
    },
  ];
}

function valueMarks({ layout, plot, rightAt }: TrendPlot, k: number): Mark[] {
  const { unit, ticks, at, gap }: PlotAxis = layout.axes[k];
  const right = k === 1;
  const x = right ? rightAt + 7 : -9;
  const words: PlacedText[] = ticks.map((tick) => ({ x, y: at(tick) + 4, text: tickText(tick, ticks) }));
  const labels: TextMark = {
    kind: 'text',
    key: `values ${k}`,
    words: layout.axes.length > 1 ? [...words, { x, y: -10, text: unit }] : words,
    anchor: right ? 'start' : 'end',
    ...LABEL,
  };
  const d = ticks.map((tick) => (right ? `M${rightAt} ${at(tick)}h4` : `M-5 ${at(tick)}H-1`)).join('');
  return [
    { kind: 'path', key: `graduations ${k}`, d, stroke: 'ink2' },
    labels,
    ...(gap ? breakMarks(`break ${k}`, gap.top, ...breakOf(k, layout.axes.length, plot.width, rightAt)) : []),
  ];
}

/** How far a break reaches beyond its axis where another axis has lines of its own, px. */
const BREAK_REACH = 12;

/** From where, and how far, a break is drawn: over the plot, or beside its own axis where lines of another one pass. */
const breakOf = (k: number, axes: number, width: number, rightAt: number): [from: number, wide: number] =>
  axes === 1 ? [-6, width + 10] : k === 0 ? [-6, 6 + BREAK_REACH] : [rightAt - BREAK_REACH, BREAK_REACH + 6];

/** The break of a broken axis: two waves, like a torn sheet. */
function breakMarks(key: string, top: number, from: number, wide: number): Mark[] {
  const waves = Math.max(1, Math.round(wide / 24));
  const step = wide / waves;
  const wave = (by: number): string =>
    `M${from} ${top + BREAK_HEIGHT / 2 + by}${`q${step / 4} -4 ${step / 2} 0t${step / 2} 0`.repeat(waves)}`;
  return [
    { kind: 'rect', key, x: from, y: top, width: wide, height: BREAK_HEIGHT, fill: 'sheet' },
    { kind: 'path', key: `${key} waves`, d: wave(-3) + wave(3), stroke: 'ink2' },
  ];
}

/** Decimals that distinguish neighbouring graduations. */
function tickText(tick: number, ticks: readonly number[]): string {
  if (tick === 0) return '0';
  const steps = ticks.filter((each) => each !== tick).map((each) => Math.abs(each - tick));
  const step = steps.length > 0 ? Math.min(...steps) : Math.abs(tick) || 1;
  return formatNumber(tick, Math.max(0, Math.min(6, Math.ceil(-Math.log10(step) - 1e-9))));
}
