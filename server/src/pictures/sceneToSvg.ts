import type { Palette } from '@vivid-beacon/core/src/drawing/palette';
import {
  clipId,
  definitionsOf,
  lightId,
  type Face,
  type GroupMark,
  type Mark,
  type Paint,
  type Scene,
  type TextMark,
} from '@vivid-beacon/core/src/drawing/scene';
import { FONTS, fontFaces } from './fonts';

interface SvgOptions {
  readonly palette: Palette;
  /** Does the file bring its fonts along? Not where who draws it has them. */
  readonly withFonts: boolean;
}

/**
 * A scene as an SVG document, with the background of a sheet: the same elements, in the same order, as the screen has.
 *
 * @example sceneToSvg(lampScene('clear', 24), { palette: DAY, withFonts: false })
 */
export function sceneToSvg(scene: Scene, { palette, withFonts }: SvgOptions): string {
  const { width, height } = scene;
  const style = withFonts ? element('style', {}, fontFaces(facesOf(scene.marks))) : '';
  return element(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      width,
      height,
      viewBox: `0 0 ${width} ${height}`,
      role: 'img',
      'aria-label': scene.spoken || undefined,
    },
    style +
      definitions(scene, palette) +
      element('rect', { width, height, fill: palette.sheet }) +
      scene.marks.map((mark) => drawn(mark, palette)).join(''),
  );
}

type Attributes = Readonly<Record<string, string | number | undefined>>;

function element(name: string, attributes: Attributes, content = ''): string {
  const written = Object.entries(attributes)
    .map(([key, value]) => (value === undefined ? '' : ` ${key}="${escaped(String(value))}"`))
    .join('');
  return content === '' ? `<${name}${written}/>` : `<${name}${written}>${content}</${name}>`;
}

const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Signs that no XML document may hold. */
// eslint-disable-next-line no-control-regex
const FORBIDDEN = /[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]/g;
const escaped = (text: string): string =>
  text.replace(FORBIDDEN, '').replace(/[&<>"]/g, (sign) => SIGNS[sign]);

function definitions(scene: Scene, palette: Palette): string {
  const { lights, clips, isHatched } = definitionsOf(scene);
  const stop = (offset: number, colour: string, opacity: number): string =>
    element('stop', { offset, 'stop-color': colour, 'stop-opacity': opacity });
  const all = [
    ...lights.map((light) => {
      const { cx, cy, r, ink } = light;
      return element(
        'radialGradient',
        { id: lightId(light), gradientUnits: 'userSpaceOnUse', cx, cy, r },
        stop(0, palette[ink], 0.16) +
          stop(0.5, palette[ink], palette.beamTop / 2) +
          stop(1, palette[ink], palette.beamTop),
      );
    }),
    ...clips.map((box) => {
      const { x, y, width, height } = box;
      return element('clipPath', { id: clipId(box) }, element('rect', { x, y, width, height }));
    }),
    ...(isHatched
      ? [
          element(
            'pattern',
            {
              id: 'hatch',
              width: 8,
              height: 8,
              patternUnits: 'userSpaceOnUse',
              patternTransform: 'rotate(45)',
            },
            element('line', { y2: 8, stroke: palette.line2, opacity: 0.7 }),
          ),
        ]
      : []),
  ];
  return all.length === 0 ? '' : element('defs', {}, all.join(''));
}

function drawn(mark: Mark, palette: Palette): string {
  switch (mark.kind) {
    case 'path':
      return mark.d === ''
        ? ''
        : element('path', {
            d: mark.d,
            'clip-path': mark.clip && `url(#${clipId(mark.clip)})`,
            ...painted(mark, palette),
          });
    case 'rect':
      return element('rect', { ...boxOf(mark), ...painted(mark, palette) });
    case 'circle':
      return element('circle', { cx: mark.cx, cy: mark.cy, r: mark.r, ...painted(mark, palette) });
    case 'hatch':
      return element('rect', { ...boxOf(mark), fill: 'url(#hatch)' });
    case 'text':
      return text(mark, palette);
    case 'group':
      return group(mark, palette);
  }
}

const boxOf = ({ x, y, width, height }: Mark & { readonly kind: 'rect' | 'hatch' }): Attributes => ({
  x,
  y,
  width,
  height,
});

function painted(
  { fill, fillOpacity, stroke, strokeWidth, dash, round, opacity }: Paint,
  palette: Palette,
): Attributes {
  return {
    fill: fill === undefined ? 'none' : typeof fill === 'object' ? `url(#${lightId(fill)})` : palette[fill],
    'fill-opacity': fillOpacity,
    stroke: stroke && palette[stroke],
    'stroke-width': stroke && (strokeWidth ?? 1),
    'stroke-dasharray': dash,
    'stroke-linejoin': round ? 'round' : undefined,
    'stroke-linecap': round ? 'round' : undefined,
    opacity,
  };
}

function text({ words, face, size, ink, anchor, outline }: TextMark, palette: Palette): string {
  if (words.length === 0) return '';
  const { family, weight } = FONTS[face];
  return element(
    'text',
    {
      'font-family': family,
      'font-weight': weight,
      'font-size': size,
      fill: palette[ink],
      'text-anchor': anchor,
      stroke: outline && palette[outline],
      'stroke-width': outline && 3,
      'paint-order': outline && 'stroke',
    },
    words.map((each) => element('tspan', { x: each.x, y: each.y }, escaped(each.text) || ' ')).join(''),
  );
}

function group(
  { marks, x = 0, y = 0, scale = 1, opacity, turned, clip }: GroupMark,
  palette: Palette,
): string {
  const moved = x === 0 && y === 0 ? '' : `translate(${x} ${y})`;
  const scaled = scale === 1 ? '' : `scale(${scale})`;
  const content = marks.map((mark) => drawn(mark, palette)).join('');
  return element(
    'g',
    { transform: moved + scaled || undefined, opacity, 'clip-path': clip && `url(#${clipId(clip)})` },
    turned
      ? element('g', { transform: `rotate(${turned.degrees} ${turned.cx} ${turned.cy})` }, content)
      : content,
  );
}

function facesOf(marks: readonly Mark[]): ReadonlySet<Face> {
  const found = new Set<Face>();
  const walk = (mark: Mark): void => {
    if (mark.kind === 'text') found.add(mark.face);
    if (mark.kind === 'group') mark.marks.forEach(walk);
  };
  marks.forEach(walk);
  return found;
}
