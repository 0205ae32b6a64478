import fc from 'fast-check';
import { PNG } from 'pngjs';
import { DAY, NIGHT } from '@vivid-beacon/core/src/drawing/palette';
import { FACES, type Mark, type Scene } from '@vivid-beacon/core/src/drawing/scene';
import { FONTS } from './fonts';
import { pngOf } from './pictureTask';
import { sceneToSvg } from './sceneToSvg';

const sceneOf = (...marks: Mark[]): Scene => ({ width: 60, height: 40, marks, hits: [], spoken: '' });
const drawn = (scene: Scene, palette = DAY): PNG =>
  PNG.sync.read(Buffer.from(pngOf(sceneToSvg(scene, { palette, withFonts: false }), 1)));
/** "#rrggbb" of a pixel. */
const at = ({ data, width }: PNG, x: number, y: number): string =>
  `#${[...data.subarray(4 * (y * width + x), 4 * (y * width + x) + 3)]
    .map((part) => part.toString(16).padStart(2, '0'))
    .join('')}`.toUpperCase();
const inked = (png: PNG): number => {
  let count = 0;
  for (let i = 0; i < png.width * png.height; i++)
    if (at(png, i % png.width, Math.floor(i / png.width)) !== DAY.sheet) count++;
  return count;
};

describe('a scene as SVG', () => {
  it('has the colours of its palette, by day and by night, on a sheet', () => {
    const square = sceneOf({ kind: 'rect', key: 'a', x: 10, y: 10, width: 20, height: 20, fill: 'breach' });
    for (const palette of [DAY, NIGHT]) {
      const png = drawn(square, palette);
      expect([at(png, 20, 20), at(png, 50, 30)]).toEqual([palette.breach, palette.sheet]);
    }
  });

  it('puts groups at their place, turns, scales and clips them', () => {
    const png = drawn(
      sceneOf({
        kind: 'group',
        key: 'g',
        x: 20,
        y: 0,
        scale: 2,
        clip: { x: 0, y: 0, width: 10, height: 20 },
        turned: { degrees: 90, cx: 5, cy: 5 },
        marks: [{ kind: 'rect', key: 'r', x: 0, y: 0, width: 10, height: 2, fill: 'ink' }],
      }),
    );
    // The bar along the top, turned by a quarter around the middle of its square, runs down its right side.
    expect([at(png, 38, 10), at(png, 24, 2), at(png, 10, 10)]).toEqual([DAY.ink, DAY.sheet, DAY.sheet]);
  });

  it.each(FACES)('writes %s with the shipped font and no other', (face) => {
    const words = (text: string): Mark => ({
      kind: 'text',
      key: 't',
      words: [{ x: 5, y: 25, text }],
      face,
      size: 16,
      ink: 'ink',
    });
    expect(inked(drawn(sceneOf(words('Ironer'))))).toBeGreaterThan(60);
    const svg = sceneToSvg(sceneOf(words('Ironer')), { palette: DAY, withFonts: true });
    expect(svg).toContain(`@font-face{font-family:"${FONTS[face].family}";font-weight:${FONTS[face].weight}`);
    expect(svg.match(/@font-face/g)).toHaveLength(1);
  });

  it('writes the weights of a font apart', () => {
    const ink = (face: 'regular' | 'strong'): number =>
      inked(
        drawn(
          sceneOf({
            kind: 'text',
            key: 't',
            words: [{ x: 2, y: 28, text: 'MMM' }],
            face,
            size: 22,
            ink: 'ink',
          }),
        ),
      );
    expect(ink('strong')).toBeGreaterThan(1.1 * ink('regular'));
  });

  it('can be drawn whatever is written in it', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const scene = sceneOf({
          kind: 'text',
          key: text,
          words: [{ x: 5, y: 25, text }],
          face: 'medium',
          size: 12,
          ink: 'ink',
        });
        expect(drawn({ ...scene, spoken: text }).width).toBe(60);
      }),
      { numRuns: 60 },
    );
  });

  it('holds no script and no mark of its own that a title brings along', () => {
    const svg = sceneToSvg(
      { ...sceneOf(), spoken: '"><script>alert(1)</script>' },
      { palette: DAY, withFonts: false },
    );
    expect(svg).not.toContain('<script>');
    expect(svg).toContain('aria-label="&quot;&gt;&lt;script&gt;');
  });
});
