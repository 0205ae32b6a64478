import { levelOf, type Level } from '../../bands/targetBand';
import { wordInk } from '../palette';
import type { Mark } from '../scene';
import { lampMark } from '../lampScene';
import { labelPlaces } from './trendLayout';
import type { TrendPlot } from './trendPlot';

const LINE = 15;
const LAMP = 17;
const NAME = 13;

/** The name of each line at its end, spread apart to avoid overlaps, with a lamp if it is not Clear. */
export function nameMarks({ lines, subject, layout, plot, bands }: TrendPlot): Mark {
  const { width, height } = plot;
  const ends = lines.flatMap((each) => {
    const last = each.top.findLastIndex((value) => value !== null);
    if (last < 0) return [];
    const band = bands[each.axis];
    const level: Level = band ? levelOf(band, each.v[last]) : 'clear';
    return [{ each, level, x: layout.x(each.t[last]), y: layout.axes[each.axis].at(each.top[last]!) }];
  });
  const places = labelPlaces(
    ends.map(({ y }) => y),
    LINE,
    6,
    height,
  );
  const leaders = ends.map(({ x, y }, i) => `M${x + 2} ${y}L${width + 4} ${places[i]}`).join('');
  return {
    kind: 'group',
    key: 'names',
    name: 'names',
    marks: [
      { kind: 'path', key: 'leaders', d: leaders, stroke: 'line2', strokeWidth: 0.8 },
      ...ends.flatMap(({ each, level }, i): Mark[] => [
        ...(level === 'clear'
          ? []
          : [lampMark(level, `${each.key} lamp`, width + 13 - LAMP / 2, places[i] - LAMP / 2, LAMP)]),
        {
          kind: 'text',
          key: each.key,
          words: [{ x: width + (level === 'clear' ? 7 : 22), y: places[i] + 4, text: each.name }],
          face: each === subject ? 'strong' : 'medium',
          size: NAME,
          ink: level === 'clear' ? (each === subject ? 'ink' : 'ink2') : wordInk(level),
        },
      ]),
    ],
  };
}
