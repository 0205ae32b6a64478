import { channelMarks } from '../bandChannel';
import type { Mark, Scene } from '../scene';
import { alongMarks } from './alongMarks';
import { axisMarks } from './axisMarks';
import { bandMarks } from './bandMarks';
import { lineMarks, pointNumbers } from './lineMarks';
import { nameMarks } from './nameMarks';
import type { PlottedSeries } from './trendLayout';
import type { TrendPlot } from './trendPlot';

/** How far drawing may extend beyond the plot, px, so that lines are not cut at its edge. */
const OVER = { x: 4, y: 6 };

/** The reference: a dashed line, or dashed columns beside those that are compared with it. */
function comparedMark({ path, columns }: PlottedSeries): Mark {
  const outlines = columns.map(({ x, y, width, height }) => `M${x} ${y}h${width}v${height}h${-width}Z`);
  const d = path === '' ? outlines.join('') : path;
  return { kind: 'path', key: 'compared', d, stroke: 'ink2', strokeWidth: 1.1, dash: '4 3' };
}

/**
 * Lines over time: the subject changes colour where it leaves its band; gaps stay open. While a finger moves
 * the view, the group "moves" moves and the groups "ticks" and "names" are hidden.
 */
export function trendScene(trend: TrendPlot): Scene {
  const { plot, channels, named, rightAt, compared, options } = trend;
  const moves: Mark[] = [
    ...alongMarks(trend),
    ...(compared ? [comparedMark(compared)] : []),
    ...lineMarks(trend),
    ...(options.labelled && options.mark !== 'columns' ? pointNumbers(trend) : []),
  ];
  const view = {
    x: -OVER.x,
    y: -plot.y,
    width: plot.width + 2 * OVER.x,
    height: plot.height + plot.y + OVER.y,
  };
  // Beside its own axis: with two units, only the second has its band on the right.
  const beside = trend.layout.axes.length > 1 ? channelMarks(channels[1], rightAt - 11, 'band') : [];
  const alone =
    trend.layout.axes.length > 1 || named ? [] : channelMarks(channels[0], plot.width + 6, 'band');
  return {
    width: trend.width,
    height: trend.height,
    marks: [
      {
        kind: 'group',
        key: 'plot',
        x: plot.x,
        y: plot.y,
        marks: [
          ...bandMarks(trend),
          {
            kind: 'group',
            key: 'view',
            clip: view,
            marks: [{ kind: 'group', key: 'moves', name: 'moves', marks: moves }],
          },
          ...axisMarks(trend),
          ...(named ? [nameMarks(trend)] : []),
          ...beside,
          ...alone,
        ],
      },
    ],
    hits: [],
    spoken: '',
  };
}
