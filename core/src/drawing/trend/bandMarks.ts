import { shapeInk } from '../palette';
import type { Mark } from '../scene';
import type { TrendPlot } from './trendPlot';

/** How far the limits of the second unit extend into the plot. */
const REACH = 34;
const NOTCH = 9;

/** Target bands behind the lines: Clear as a tint, limits as lines, targets with a notch. */
export function bandMarks(trend: TrendPlot): Mark[] {
  return [...ofAxis(trend, 0), ...ofAxis(trend, 1)];
}

/** The band of the second unit is marked at its axis on the right, without a tint. */
function ofAxis({ bands, channels, layout, plot }: TrendPlot, k: 0 | 1): Mark[] {
  const band = bands[k];
  const axis = layout.axes[k];
  if (!band || !axis) return [];
  const second = k === 1;
  const { width, height } = plot;
  const from = second ? Math.max(0, width - REACH) : 0;
  const tint = channels[k].filter(({ level }) => level === 'clear' && !second);
  const limits = channels[k].slice(1).map(({ bottom, level }, i): Mark => {
    const breach = level === 'breach' || channels[k][i].level === 'breach';
    return {
      kind: 'path',
      key: `limit ${k} ${i}`,
      d: `M${from} ${bottom}H${width}`,
      stroke: shapeInk(breach ? 'breach' : 'caution'),
      strokeWidth: 1.2,
      dash: breach ? undefined : '1.5 3',
    };
  });
  const y = band.target === null ? -1 : axis.at(band.target);
  const isShown = band.target !== null && y >= -0.5 && y <= height + 0.5;
  const notch = second ? `M${width - NOTCH} ${y}l${NOTCH} -5v10Z` : `M${NOTCH} ${y}l-${NOTCH} -5v10Z`;
  const target: Mark[] = [
    {
      kind: 'path',
      key: `target ${k}`,
      d: `M${from} ${y}H${width}`,
      stroke: 'ink',
      strokeWidth: 0.9,
      dash: '9 3 1.5 3',
    },
    { kind: 'path', key: `notch ${k}`, d: notch, fill: 'ink' },
  ];
  return [
    ...tint.map(({ top, bottom }, i): Mark => ({
      kind: 'rect',
      key: `clear ${i}`,
      x: 0,
      y: top,
      width,
      height: bottom - top,
      fill: 'water',
      opacity: 0.5,
    })),
    ...limits,
    ...(isShown ? target : []),
  ];
}
