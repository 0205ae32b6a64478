import { levelOf, type Level } from '../../bands/targetBand';
import { fittedText } from '../fittedText';
import { lampMark } from '../lampScene';
import { wordInk } from '../palette';
import type { Box, Mark } from '../scene';
import { labelPlaces, type PlottedSeries } from './trendLayout';
import type { TrendPlot } from './trendPlot';

/** Least and usual distance of names, px: the usual one can be pressed. */
const LINE = 15;
const PRESSABLE = 24;
const LAMP = 17;
const NAME = 13;
const FROM = 7;
const WITH_LAMP = 22;

/** The name of a line at its end. */
interface NamePlace {
  readonly line: PlottedSeries;
  readonly level: Level;
  /** Where its line ends, px of the plot. */
  readonly from: { readonly x: number; readonly y: number };
  /** What can be pressed, px of the plot. */
  readonly box: Box;
  readonly text: string;
}

/** Names at the ends of the lines, spread apart, each no wider than the room for it. */
export function namePlaces({
  lines,
  subject,
  layout,
  plot,
  bands,
  forNames,
}: TrendPlot): readonly NamePlace[] {
  const ends = lines.flatMap((line) => {
    const last = line.top.findLastIndex((value) => value !== null);
    if (last < 0) return [];
    const band = bands[line.axis];
    const level: Level = band ? levelOf(band, line.v[last]) : 'clear';
    const from = { x: layout.x(line.t[last]), y: layout.axes[line.axis].at(line.top[last]!) };
    return [{ line, level, from }];
  });
  const apart = Math.max(LINE, Math.min(PRESSABLE, plot.height / Math.max(1, ends.length)));
  const places = labelPlaces(
    ends.map(({ from }) => from.y),
    apart,
    6,
    plot.height,
  );
  return ends.map(({ line, level, from }, i) => {
    const room = forNames - (level === 'clear' ? FROM : WITH_LAMP);
    return {
      line,
      level,
      from,
      box: { x: plot.width + 4, y: places[i] - apart / 2, width: Math.max(0, forNames - 4), height: apart },
      text: fittedText(line.name, line === subject ? 'strong' : 'medium', NAME, room),
    };
  });
}

/** The name of each line at its end, with a lamp if it is not Clear. */
export function nameMarks(trend: TrendPlot): Mark {
  const { width } = trend.plot;
  const places = namePlaces(trend).map((each) => ({ ...each, y: each.box.y + each.box.height / 2 }));
  const leaders = places.map(({ from, y }) => `M${from.x + 2} ${from.y}L${width + 4} ${y}`).join('');
  return {
    kind: 'group',
    key: 'names',
    name: 'names',
    marks: [
      { kind: 'path', key: 'leaders', d: leaders, stroke: 'line2', strokeWidth: 0.8 },
      ...places.flatMap(({ line, level, text, y }): Mark[] => [
        ...(level === 'clear'
          ? []
          : [lampMark(level, `${line.key} lamp`, width + 13 - LAMP / 2, y - LAMP / 2, LAMP)]),
        {
          kind: 'text',
          key: line.key,
          words: [{ x: width + (level === 'clear' ? FROM : WITH_LAMP), y: y + 4, text }],
          face: line === trend.subject ? 'strong' : 'medium',
          size: NAME,
          ink: level === 'clear' ? (line === trend.subject ? 'ink' : 'ink2') : wordInk(level),
        },
      ]),
    ],
  };
}
