import { LEVEL_WORDS } from '../bands/targetBand';
import type { Level } from '../bands/targetBand';
import type { Mark, Scene } from './scene';
import { starPath } from './starPath';

/** Marks on a lamp for the state of an alarm. */
export type AlarmMark = 'notAcknowledged' | 'acknowledged' | 'clearAgain';

/** Side of the square of a lamp, px. */
export const LAMP_BOX = 24;
/** Room for an alarm's mark on every side, px. */
const ROOM = 6;
const HALF_LIGHT = 'M12 4.5A7.5 7.5 0 0 0 12 19.5Z';

/** Light out: a dashed ring with two short diagonals. */
const NO_DATA: readonly Mark[] = [
  { kind: 'circle', key: 'ring', cx: 12, cy: 12, r: 7.5, stroke: 'nodata', strokeWidth: 2, dash: '3.4 2.5' },
  {
    kind: 'path',
    key: 'strokes',
    d: 'M8.2 13.8L13.8 8.2M10.2 15.8L15.8 10.2',
    stroke: 'nodata',
    strokeWidth: 1.6,
    round: true,
  },
];

/** Steady light, half light, flare, light out: the shape of each level in a square of 24 px. */
const LIGHTS: Readonly<Record<Level, readonly Mark[]>> = {
  clear: [{ kind: 'circle', key: 'steady', cx: 12, cy: 12, r: 7.5, fill: 'clear' }],
  caution: [
    {
      kind: 'circle',
      key: 'ring',
      cx: 12,
      cy: 12,
      r: 7.5,
      fill: 'cautionW',
      stroke: 'caution',
      strokeWidth: 2,
    },
    { kind: 'path', key: 'half', d: HALF_LIGHT, fill: 'caution' },
  ],
  breach: [
    {
      kind: 'path',
      key: 'flare',
      d: starPath(12, 12, 10.6, 6.5),
      fill: 'breach',
      stroke: 'breach',
      strokeWidth: 0.8,
      round: true,
    },
  ],
  nodata: NO_DATA,
};

const ALARM_MARKS: Readonly<Record<AlarmMark, Mark>> = {
  notAcknowledged: { kind: 'circle', key: 'mark', cx: 12, cy: 12, r: 15, stroke: 'ink', strokeWidth: 1.2 },
  acknowledged: { kind: 'path', key: 'mark', d: 'M4 26H20', stroke: 'ink', strokeWidth: 2.4 },
  clearAgain: { kind: 'path', key: 'mark', d: 'M23 1V7M20 4H26', stroke: 'ink', strokeWidth: 1.8 },
};

/** The lamp of a level in a square with its corner at `x`, `y`. */
export function lampMark(level: Level, key: string, x: number, y: number, size: number): Mark {
  return { kind: 'group', key, x, y, scale: size / LAMP_BOX, marks: LIGHTS[level] };
}

/** A lamp by itself, `size` px wide; the mark of an alarm adds some room around it. */
export function lampScene(level: Level, size: number, mark?: AlarmMark): Scene {
  const room = mark ? ROOM : 0;
  const scale = size / LAMP_BOX;
  const side = size + 2 * room * scale;
  return {
    width: side,
    height: side,
    marks: [
      {
        kind: 'group',
        key: level,
        x: room * scale,
        y: room * scale,
        scale,
        marks: mark ? [...LIGHTS[level], ALARM_MARKS[mark]] : LIGHTS[level],
      },
    ],
    hits: [],
    spoken: LEVEL_WORDS[level],
  };
}
