import fc from 'fast-check';
import { divisorOf, refuseSharedDivisor } from './divisor';

const AREA = 'Floor area (m²)';
const at = (...path: string[]) => ({ path });
const areas = (given: Record<string, string | number>) =>
  new Map(Object.entries(given).map(([id, area]) => [id, { [AREA]: area }]));

describe('what metrics are divided by', () => {
  it('is the attribute of the nearest asset that has it, each asset once', () => {
    const metrics = [at('site', 'hall', 'dryer 1'), at('site', 'hall', 'dryer 2'), at('site', 'office')];
    expect(divisorOf(metrics, AREA, areas({ site: 4000, hall: 1000 }))).toMatchObject({
      // The hall is part of the site.
      holders: [{ assetId: 'site', value: 4000 }],
      total: 4000,
      leftOut: [],
    });
    expect(divisorOf(metrics.slice(0, 2), AREA, areas({ site: 4000, hall: 1000 })).total).toBe(1000);
  });

  it('leaves out what has none, or one that is not a number above 0, instead of looking further up', () => {
    const metrics = [at('a'), at('b', 'b1'), at('c'), at('d')];
    const made = divisorOf(metrics, AREA, areas({ a: 50, b: 10, b1: 'large', c: 0 }));
    expect([made.counted, made.total]).toEqual([[metrics[0]], 50]);
    expect(made.leftOut).toEqual(metrics.slice(1));
    expect(divisorOf([at('d')], AREA, new Map()).total).toBeNull();
  });

  it('reads a number that came in as text, whatever capitals its name has', () => {
    const attributes = new Map([['a', { 'FLOOR AREA (M²)': '12.5' }]]);
    expect(divisorOf([at('a')], AREA, attributes).total).toBe(12.5);
  });

  it('adds up, over any tree, the highest assets that some metric counts for', () => {
    // A tree of 40: the parent of n is n >> 1.
    const pathOf = (n: number): string[] => (n === 0 ? [] : [...pathOf(n >> 1), String(n)]);
    const node = fc.integer({ min: 1, max: 40 });
    fc.assert(
      fc.property(
        fc.array(node, { maxLength: 12 }),
        fc.dictionary(node.map(String), fc.integer({ min: 1, max: 99 })),
        (nodes, given) => {
          const made = divisorOf(
            nodes.map((n) => at(...pathOf(n))),
            AREA,
            areas(given),
          );
          const nearest = nodes.map((n) =>
            pathOf(n)
              .reverse()
              .find((id) => id in given),
          );
          const used = new Set(nearest.filter((id) => id !== undefined));
          const highest = [...used].filter((id) =>
            pathOf(Number(id)).every((above) => above === id || !used.has(above)),
          );
          const sum = highest.reduce((all, id) => all + given[id], 0);
          expect(made.total).toBe(highest.length === 0 ? null : sum);
          expect(made.leftOut).toHaveLength(nearest.filter((id) => id === undefined).length);
        },
      ),
    );
  });

  it('is not shared by a mean of several: that would be neither the mean nor the total', () => {
    expect(() => refuseSharedDivisor([1, 2], 'mean', AREA)).toThrow(
      'The mean of 2 metrics together cannot be shown per Floor area (m²). Choose a sum, or group by metric.',
    );
    refuseSharedDivisor([1], 'mean', AREA);
    refuseSharedDivisor([1, 2], 'sum', AREA);
  });
});
