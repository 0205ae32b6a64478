import fc from 'fast-check';
import { textWidth } from '../textWidth';
import { labelPoints, type LabelledLine } from './labelPoints';
import { PLOT_NUMBER } from './trendLayout';

const WIDTH = 300;
const HEIGHT = 180;
const half = (text: string): number => textWidth(text, 'medium', PLOT_NUMBER) / 2;

const point = fc.record({
  x: fc.double({ min: 0, max: WIDTH, noNaN: true }),
  y: fc.double({ min: 0, max: HEIGHT, noNaN: true }),
  value: fc.double({ min: -1e6, max: 1e6, noNaN: true }),
});
const lines: fc.Arbitrary<LabelledLine[]> = fc
  .array(fc.array(point, { maxLength: 40 }), { maxLength: 4 })
  .map((all) => all.map((points, i) => ({ key: `line ${i}`, points })));

describe('numbers at points', () => {
  it('never lie on one another, nor outside the plot, for any lines', () => {
    fc.assert(
      fc.property(lines, fc.integer({ min: 0, max: 3 }), (all, decimals) => {
        const boxes = labelPoints(all, decimals, WIDTH, HEIGHT).map(({ x, y, text }) => ({
          left: x - half(text),
          right: x + half(text),
          top: y - 11,
          bottom: y,
        }));
        boxes.forEach((a, i) => {
          expect(a.left).toBeGreaterThanOrEqual(-1e-9);
          expect(a.right).toBeLessThanOrEqual(WIDTH + 1e-9);
          expect(a.top).toBeGreaterThanOrEqual(-1e-9);
          expect(a.bottom).toBeLessThanOrEqual(HEIGHT);
          for (const b of boxes.slice(i + 1))
            expect(a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom).toBe(false);
        });
      }),
    );
  });

  it('tell first the last, the highest and the lowest, of many points only those', () => {
    const points = Array.from({ length: 400 }, (_, i) => ({
      x: (i / 399) * WIDTH,
      y: 90 + 60 * Math.sin(i / 30),
      value: 100 - 60 * Math.sin(i / 30),
    }));
    const values = points.map(({ value }) => value);
    const told = labelPoints([{ key: 'a', points }], 0, WIDTH, HEIGHT).map(({ text }) => Number(text));
    expect(told).toEqual(
      [values[399], Math.max(...values), Math.min(...values)].map((value) => Math.round(value)),
    );
  });

  it('stand below where there is no room above, and of a point alone there is one', () => {
    const [label, ...none] = labelPoints(
      [{ key: 'a', points: [{ x: 150, y: 2, value: 7 }] }],
      0,
      WIDTH,
      HEIGHT,
    );
    expect(none).toEqual([]);
    expect(label.text).toBe('7');
    expect(label.y).toBeGreaterThan(2);
  });
});
