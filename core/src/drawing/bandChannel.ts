import type { Sector } from '../bands/targetBand';
import type { Mark } from './scene';

const WIDTH = 9;

/** A stretch of a vertical scale with one level; `top` < `bottom` in px. */
export interface Channel {
  readonly top: number;
  readonly bottom: number;
  readonly level: Sector['level'];
}

/**
 * The sectors of a band beside a vertical scale. Worse levels are filled more, so that colour is never the
 * only sign.
 */
export function channelMarks(channels: readonly Channel[], x: number, key: string): Mark[] {
  return channels.flatMap(({ top, bottom, level }, i): Mark[] => {
    const own = `${key} ${i}`;
    const height = Math.max(0, bottom - top - 1.5);
    const half = { y: top, width: WIDTH / 2, height };
    if (level === 'breach')
      return [{ kind: 'rect', key: own, x, y: top, width: WIDTH, height, fill: 'breach' }];
    if (level === 'caution') {
      return [
        { kind: 'rect', key: `${own} light`, x, ...half, fill: 'cautionW' },
        { kind: 'rect', key: own, x: x + WIDTH / 2, ...half, fill: 'caution' },
      ];
    }
    return [
      {
        kind: 'rect',
        key: own,
        x: x + 0.5,
        y: top,
        width: WIDTH - 1,
        height,
        fill: 'water',
        stroke: 'clear',
      },
    ];
  });
}
