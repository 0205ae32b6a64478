import type { Box } from './scene';
import { textWidth } from './textWidth';
import type { Face } from './scene';

/** A point that is to be named. */
export interface NamedPoint {
  readonly key: string;
  readonly name: string;
  readonly x: number;
  readonly y: number;
  /** Radius of what is drawn there, px. */
  readonly r: number;
}

export interface PlacedName {
  readonly key: string;
  readonly text: string;
  /** Left end and baseline. */
  readonly x: number;
  readonly y: number;
  readonly box: Box;
}

interface Style {
  readonly face: Face;
  readonly size: number;
}

const GAP = 4;

/**
 * Names beside their points, without overlap with one another and with other points: to the right of it, left, above or
 * below, whichever is free; names without room are left out.
 *
 * @param points the most important first. @param room in which names must lie, px.
 */
export function placeNames(points: readonly NamedPoint[], room: Box, { face, size }: Style): PlacedName[] {
  const taken: Box[] = points.map(({ x, y, r }) => ({ x: x - r, y: y - r, width: 2 * r, height: 2 * r }));
  const placed: PlacedName[] = [];
  points.forEach(({ key, name, x, y, r }, i) => {
    const width = textWidth(name, face, size);
    const height = size * 1.1;
    const corners: readonly (readonly [number, number])[] = [
      [x + r + GAP, y - height / 2],
      [x - r - GAP - width, y - height / 2],
      [x - width / 2, y - r - GAP / 2 - height],
      [x - width / 2, y + r + GAP / 2],
    ];
    const free = corners
      .map(([left, top]): Box => ({ x: left, y: top, width, height }))
      .find((box) => isInside(box, room) && !taken.some((other, k) => k !== i && overlaps(box, other)));
    if (!free) return;
    taken.push(free);
    placed.push({ key, text: name, x: free.x, y: free.y + size * 0.85, box: free });
  });
  return placed;
}

/** Whether two boxes share some area. */
export const overlaps = (a: Box, b: Box): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

const isInside = (box: Box, room: Box): boolean =>
  box.x >= room.x &&
  box.y >= room.y &&
  box.x + box.width <= room.x + room.width &&
  box.y + box.height <= room.y + room.height;
