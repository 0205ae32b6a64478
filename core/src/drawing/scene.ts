import type { Ink } from './palette';

/**
 * A drawing as plain data, in px from its upper left corner. Colours are names of the palette; widths of
 * words come from the shipped fonts (`textWidth`), so that the layout is the same on the screen (`SceneView`)
 * and in files (`sceneToSvg`).
 */
export interface Scene {
  readonly width: number;
  readonly height: number;
  /** Back to front. */
  readonly marks: readonly Mark[];
  /** Hit regions, in keyboard order. */
  readonly hits: readonly HitRegion[];
  /** Description for screen readers. */
  readonly spoken: string;
}

/**
 * One element. Its key is unique among its siblings and stable between scenes, so that the view can animate
 * from one to the next.
 */
export type Mark = PathMark | RectMark | CircleMark | TextMark | HatchMark | GroupMark;

/** Fill and outline of a shape; none by default. */
export interface Paint {
  readonly fill?: Ink | Light;
  readonly fillOpacity?: number;
  readonly stroke?: Ink;
  /** px; default 1. */
  readonly strokeWidth?: number;
  /** Lengths of dashes and gaps, px: "3 2.5". */
  readonly dash?: string;
  /** Whether corners and ends of the outline are round. */
  readonly round?: boolean;
  readonly opacity?: number;
}

/** Radial gradient: faint in the middle, full strength of the palette's beam at the rim. */
export interface Light {
  readonly cx: number;
  readonly cy: number;
  readonly r: number;
  readonly ink: Ink;
}

export interface PathMark extends Paint {
  readonly kind: 'path';
  readonly key: string;
  /** Path data of SVG. */
  readonly d: string;
  /** Clips what is outside. */
  readonly clip?: Box;
}

export interface RectMark extends Paint, Box {
  readonly kind: 'rect';
  readonly key: string;
}

export interface CircleMark extends Paint {
  readonly kind: 'circle';
  readonly key: string;
  readonly cx: number;
  readonly cy: number;
  readonly r: number;
}

/** Texts of one style at several positions, as one element. */
export interface TextMark {
  readonly kind: 'text';
  readonly key: string;
  readonly words: readonly PlacedText[];
  readonly face: Face;
  /** px. */
  readonly size: number;
  readonly ink: Ink;
  /** Anchor of each text; default: its start. */
  readonly anchor?: 'start' | 'middle' | 'end';
  /** Colour of a 3 px halo under the letters, which keeps lines away from them. */
  readonly outline?: Ink;
}

export interface PlacedText {
  readonly x: number;
  /** Position of the baseline. */
  readonly y: number;
  readonly text: string;
}

/** The shipped fonts used in drawings. */
export const FACES = ['regular', 'medium', 'strong', 'title'] as const;
export type Face = (typeof FACES)[number];

/** Diagonal hatching: no data, or time still to come. */
export interface HatchMark extends Box {
  readonly kind: 'hatch';
  readonly key: string;
}

export interface GroupMark {
  readonly kind: 'group';
  readonly key: string;
  readonly marks: readonly Mark[];
  /** Origin of its own coordinates. */
  readonly x?: number;
  readonly y?: number;
  readonly scale?: number;
  readonly opacity?: number;
  /** Rotation in degrees clockwise around a point in its own coordinates; the screen animates it. */
  readonly turned?: { readonly degrees: number; readonly cx: number; readonly cy: number };
  readonly clip?: Box;
  /** Name by which the screen finds it, to move it as a whole with a finger. */
  readonly name?: string;
}

export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * A hit region: a rectangle, a piece of a ring (angles in degrees clockwise from straight up), or a point with the reach
 * of a finger.
 */
export interface HitRegion {
  readonly key: string;
  /** "Foundry Lane 42 %". */
  readonly spoken: string;
  readonly shape:
    | ({ readonly kind: 'box' } & Box)
    | { readonly kind: 'point'; readonly cx: number; readonly cy: number; readonly r: number }
    | {
        readonly kind: 'ring';
        readonly cx: number;
        readonly cy: number;
        readonly inner: number;
        readonly outer: number;
        readonly from: number;
        readonly to: number;
      };
}

/** The front hit region at a place; of points within reach the nearest; null if there is none. */
export function hitAt(hits: readonly HitRegion[], x: number, y: number): HitRegion | null {
  const front = hits.findLast(({ shape }) => isInside(shape, x, y)) ?? null;
  if (front?.shape.kind !== 'point') return front;
  let nearest = front;
  let least = Infinity;
  for (const hit of hits) {
    if (hit.shape.kind !== 'point') continue;
    const far = Math.hypot(hit.shape.cx - x, hit.shape.cy - y);
    if (far <= least) [nearest, least] = [hit, far];
  }
  return nearest;
}

function isInside(shape: HitRegion['shape'], x: number, y: number): boolean {
  if (shape.kind === 'box')
    return x >= shape.x && x < shape.x + shape.width && y >= shape.y && y < shape.y + shape.height;
  const [dx, dy] = [x - shape.cx, y - shape.cy];
  const r = Math.hypot(dx, dy);
  if (shape.kind === 'point') return r <= shape.r;
  const degrees = ((Math.atan2(dx, -dy) * 180) / Math.PI + 360) % 360;
  return r >= shape.inner && r < shape.outer && degrees >= shape.from && degrees < shape.to;
}

/** A scene placed in another one: its marks become one group, its hit regions move along. */
export function placed(scene: Scene, key: string, x: number, y: number): Pick<Scene, 'marks' | 'hits'> {
  return {
    marks: [{ kind: 'group', key, x, y, marks: scene.marks }],
    hits: scene.hits.map(({ shape, ...hit }) => ({
      ...hit,
      key: `${key} ${hit.key}`,
      shape:
        shape.kind === 'box'
          ? { ...shape, x: shape.x + x, y: shape.y + y }
          : { ...shape, cx: shape.cx + x, cy: shape.cy + y },
    })),
  };
}

/** Definitions that marks refer to, drawn once before all of them. */
export interface SceneDefinitions {
  readonly lights: readonly Light[];
  readonly clips: readonly Box[];
  readonly isHatched: boolean;
}

/** Gradients, clips and hatching of a scene, each once; see `lightId` and `clipId`. */
export function definitionsOf(scene: Scene): SceneDefinitions {
  const lights = new Map<string, Light>();
  const clips = new Map<string, Box>();
  let isHatched = false;
  const walk = (mark: Mark): void => {
    if ('fill' in mark && typeof mark.fill === 'object') lights.set(lightId(mark.fill), mark.fill);
    if ('clip' in mark && mark.clip) clips.set(clipId(mark.clip), mark.clip);
    if (mark.kind === 'hatch') isHatched = true;
    if (mark.kind === 'group') mark.marks.forEach(walk);
  };
  scene.marks.forEach(walk);
  return { lights: [...lights.values()], clips: [...clips.values()], isHatched };
}

/** Equal for equal gradients, and valid as part of an id. */
export const lightId = ({ cx, cy, r, ink }: Light): string => `light-${ink}-${idOf(cx, cy, r)}`;

export const clipId = ({ x, y, width, height }: Box): string => `clip-${idOf(x, y, width, height)}`;

const idOf = (...numbers: readonly number[]): string => numbers.map((each) => each.toFixed(2)).join('-');
