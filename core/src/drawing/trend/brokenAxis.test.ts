import { brokenAxis } from './brokenAxis';

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
