import fc from 'fast-check';
import { movedView, pinchedView, timeOf, type PlotView } from './plotView';

const VIEW: PlotView = { window: { start: 1_000_000, end: 1_100_000 }, left: 40, width: 200 };
const after = (window: PlotView['window']): PlotView => ({ ...VIEW, window });
const place = fc.integer({ min: 40, max: 240 });

describe('fingers on a plot', () => {
  it('take the time under them along', () => {
    fc.assert(
      fc.property(place, place, (from, to) => {
        const moved = movedView(VIEW, from, to);
        expect(Math.abs(timeOf(after(moved), to) - timeOf(VIEW, from))).toBeLessThan(2);
        expect(moved.end - moved.start).toBeCloseTo(100_000, -1);
      }),
    );
  });

  it('take both times along when there are two', () => {
    const pair = fc.tuple(place, place).filter(([a, b]) => b - a >= 8);
    fc.assert(
      fc.property(pair, pair, (from, to) => {
        const window = pinchedView(VIEW, from, to)!;
        from.forEach((px, i) =>
          expect(Math.abs(timeOf(after(window), to[i]) - timeOf(VIEW, px))).toBeLessThan(2),
        );
      }),
    );
  });

  it('on one another tell nothing', () => {
    expect(pinchedView(VIEW, [60, 60], [60, 90])).toBeNull();
    expect(pinchedView(VIEW, [60, 90], [60, 60])).toBeNull();
  });
});
