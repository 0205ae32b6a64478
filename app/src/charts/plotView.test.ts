import fc from 'fast-check';
import { brokenAxis } from './brokenAxis';
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

describe('brokenAxis', () => {
  const values = [0.2, 0.4, 0.3, 100, 104, 110];

  it('keeps order, leaves the empty stretch out and has graduations on both parts', () => {
    const axis = brokenAxis('kW', values, 300, false)!;
    expect(axis.gap!.from).toBeGreaterThanOrEqual(0.4);
    expect(axis.gap!.to).toBeLessThanOrEqual(100);
    const places = [...values].sort((a, b) => a - b).map(axis.at);
    for (let i = 1; i < places.length; i++) expect(places[i]).toBeLessThan(places[i - 1]);
    // Both parts can be read: each spreads its values over a good share of the height.
    expect(axis.at(0.2) - axis.at(0.4)).toBeGreaterThan(20);
    expect(axis.at(100) - axis.at(110)).toBeGreaterThan(20);
    expect(axis.ticks.filter((tick) => tick < 1).length).toBeGreaterThan(1);
    expect(axis.ticks.filter((tick) => tick > 90).length).toBeGreaterThan(1);
    for (const tick of axis.ticks) {
      expect(axis.at(tick)).toBeGreaterThanOrEqual(0);
      expect(axis.at(tick)).toBeLessThanOrEqual(300);
      expect(tick > axis.gap!.from && tick < axis.gap!.to).toBe(false);
    }
  });

  it('turned round has the low values at the top', () => {
    const axis = brokenAxis('kW', values, 200, true)!;
    expect(axis.at(0.2)).toBeLessThan(axis.at(110));
    expect(axis.gap!.top).toBeGreaterThan(axis.at(0.4));
  });

  it('is none for values that lie close', () => {
    expect(brokenAxis('kW', [1, 2, 3, 4], 200, false)).toBeNull();
  });
});
